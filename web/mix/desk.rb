# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Reads what was typed on the mix bench: an active, a target strength, stems or ground; in the property's units.
      class Desk
        DEFAULTS = { "vessel" => "jar", "active" => "glyphosate_ipa" }.freeze

        attr_reader :errors, :units, :answer

        def initialize(params, patch, units, today)
          @params, @patch, @units, @today = params, patch, units, today
          @errors = {}
          @answer = work_out
        end

        def vessel = value("vessel") == "tank" ? "tank" : "jar"

        def active
          @active ||= Core::Knowledge.shipped.actives[value("active")] ||
                      Core::Knowledge.shipped.actives["glyphosate_ipa"]
        end

        # What stands in a field: as typed, else a planning value.
        def value(field)
          typed = @params[field]
          return typed.strip if typed.is_a?(String)

          DEFAULTS[field] || from_record[field]
        end

        # What the rules hold against herbicide on this patch, and against this active near water: [[text, source]].
        def objections
          return [] unless @patch&.plant

          bench = Core::Decide::Bench.new(@patch.facts(@today), @patch.property.site(@today))
          found = bench.verdict(removal).reasons.select(&:against?).map { |r| [r.said(@units), r.source] }
          if wet_and_wrong?(bench)
            found << ["Water is in reach, and this product is not labelled for aquatic use.", "common_practice"]
          end
          found
        end

        # The method that the jar or the tank is for: the one asked for, else the plant's own first, else the usual one.
        def removal
          fitting = methods_here.select { |method| method.herbicide == (vessel == "jar" ? :stem : :foliar) }
          fitting.find { |method| method.key == @params["method"] } || fitting.first ||
            Core::Knowledge.shipped.removal(vessel == "jar" ? "cut_stump" : "foliar_spot")
        end

        # As a form, for the fields of the page.
        def [](field) = value(field.to_s)
        def error(field) = errors[field]

        private

        def wet_and_wrong?(bench) = bench.situation.near_water? && !active.aquatic

        # Stems counted, else as many as the plants likely have.
        def counted
          facts = @patch&.facts(@today)
          facts && (facts.plants || facts.stems) ? Core::Decide::Effort.new(removal, facts).stems.round : 40
        end

        def from_record
          @from_record ||= { "stock" => plain(active.stock),
                             "target" => plain(active.targets[vessel == "jar" ? "stem" : "foliar"]),
                             "stems" => counted.to_s, "dose" => dose, "rate" => rate,
                             "area" => plain(units.from_si(:area, @patch&.infested&.first || 100).round(1)),
                             "container" => plain(units.from_si(:volume, vessel == "jar" ? 500 : 15_000).round(1)) }
        end

        # The first is a guess from the stem size, in mL or fl oz a stem.
        def dose
          ml = removal.dose_ml[@patch&.stem_size] || 1
          plain(units.from_si(:volume, ml).round(3))
        end

        def methods_here
          @patch&.plant ? @patch.plant.removals.keys.map { |key| Core::Knowledge.shipped.removal(key) } : []
        end

        # What that way of leaf spraying puts on 100 m².
        def rate = plain(units.from_si(:rate, removal.spray_l_per_100m2 || 5).round(1))

        def work_out
          numbers = %w[stock target container].to_h { |field| [field, number(field)] }
          need = vessel == "jar" ? jar : tank
          return if errors.any? || need.nil?

          Core::Mix::Batch.new(active:, target: numbers["target"], stock: numbers["stock"], total_ml: need.total_ml,
                               container_ml: units.to_si(:volume, numbers["container"]), need: need.steps).mixture
        rescue Core::BadInput => e
          @errors[e.field] = e.message
          nil
        end

        def jar
          stems, dose = number("stems"), number("dose")
          Core::Mix::Need.jar(stems: stems.to_i, dose_ml: units.to_si(:volume, dose).round(3)) if stems && dose
        end

        def tank
          area, rate = number("area"), number("rate")
          return unless area && rate

          Core::Mix::Need.tank(area_m2: units.to_si(:area, area), litres_per_100m2: units.to_si(:rate, rate))
        end

        def number(field)
          found = Float(value(field).to_s, exception: false)
          return found if found&.finite?

          @errors[field.to_sym] = "is not a number"
          nil
        end

        def plain(number) = number.to_s.delete_suffix(".0")
      end
    end
  end
end
