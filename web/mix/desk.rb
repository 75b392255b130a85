# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Reads what was typed on the mix bench: one product or two and their strengths, stems or ground, what goes in
      # besides; in the property's units.
      class Desk
        include Numbers

        DEFAULTS = { "vessel" => "jar", "adjuvant" => "", "dye" => "", "hardness" => "", "plants" => "", "each" => "",
                     "walk" => "20" }.freeze
        KINDS = Core::Mix::Strength::KINDS

        attr_reader :errors, :units, :answer, :patch

        def initialize(params, patch, units, property, today)
          @params, @patch, @units, @property, @today = params, patch, units, property, today
          @errors = {}
          @answer = work_out
        end

        def vessel = value("vessel") == "tank" ? "tank" : "jar"

        # The product on the bench: the one asked for, else the one in use here for this work, else an active as it is
        # usually sold, planning values and all.
        def product = @product ||= named("product") || named("active") || in_use || planned("glyphosate_ipa")

        # A second one in the same tank; nil for none.
        def second = @params["second"].to_s.empty? ? nil : @second ||= named("second")

        # What stands in a field: as typed, else a planning value.
        def value(field)
          typed = @params[field]
          return typed.strip if typed.is_a?(String)

          DEFAULTS[field] || from_record[field]
        end

        # What the label says against this mix, and the rules against herbicide on this patch: [[text, source]].
        def objections = @objections ||= Objections.new(self, @today).all

        # The method that the jar or the tank is for: the one asked for, else the plant's own first, else the usual one.
        def removal
          @removal ||= begin
            known = Core::Knowledge.shipped.methods_of_removal[@params["method"]]
            fitting = [known, *methods_here].compact.select { |method| method.herbicide == wanted }
            fitting.first || Core::Knowledge.shipped.removal(vessel == "jar" ? "cut_stump" : "foliar_spot")
          end
        end

        def use = Core::Mix::Product.use_of(removal)

        # As a form, for the fields of the page.
        def [](field) = value(field.to_s)
        def error(field) = errors[field]

        # What stems of the patch's size, or 100 m², take with this method; nil for stems of a patch without a size.
        def usage
          return @usage if defined?(@usage)

          @usage = if vessel == "tank" then Store::Usage.on_ground(removal)
                   elsif @patch&.stem_size then Store::Usage.of(removal, @patch.stem_size)
                   end
        end

        # The batch of least cost, and the way there (Core::Mix::BatchSize); nil without an answer.
        def batch
          return unless answer && usage

          count, each = vessel == "jar" ? [amount.stems, amount.dose_ml] : [amount.hundreds, amount.ml_a_hundred]
          minutes, rates = number("walk"), @property.rates
          return unless minutes&.between?(0, 600)

          planned = Core::Mix::Usage.new(each, usage.seen) # what was typed goes before the planning value
          @batch ||= Core::Mix::BatchSize.new(stems: count, usage: planned, litre: rates.litre,
                                              walk: rates.hour * minutes / 60)
        end

        # What of each herbicide method would reach the plant, and what would fall beside; nil without a plant.
        def beside
          @beside ||= BesideBoard.new(@patch, @property, @today, product) if @patch&.plant
        end

        # What lies on the patch's ground this year against what the labels allow; nil without ground or an answer.
        def limits
          return unless answer && @patch&.ground

          @limits ||= LimitsBoard.new(@patch, @today, [product, second].compact, answer.acid_g,
                                      area_m2: vessel == "tank" ? amount.hundreds * 100 : nil)
        end

        # What the work needs, as it was typed.
        def amount = @amount ||= Wanted.new(self)

        # Is any of what goes in besides asked for?
        def besides? = ["second", *Besides::FIELDS].any? { |field| !@params[field].to_s.empty? }

        # What the work record is told of the products in the vessel, {field => what is typed there}.
        def poured
          answer.doses.zip(["", "second_"]).each_with_object({}) do |(dose, which), all|
            ml = answer.total_ml * dose.strength.share
            all[:"#{which}product"] = plain(units.from_si(:volume, ml).round(2))
            all[:"#{which}product_id"] = dose.product.id
          end
        end

        # The strength in every way, for the first product; nil without an answer.
        def strength = (answer.doses.first.strength if answer)

        private

        def wanted = vessel == "jar" ? :stem : :foliar

        # A product of the shelf by its number, or an active by its key.
        def named(field)
          key = @params[field].to_s
          shelf = Store::Product.live[id: Whole.read(key)] if Whole.read(key).positive?
          shelf&.label&.mixable? ? shelf.label : planned(key)
        end

        def planned(key)
          active = Core::Knowledge.shipped.actives[key] or return
          stock = Core::Decimal.read(@params["stock"])
          made = Core::Mix::Product.planned(active)
          stock&.between?(0.001, 100) ? made.with_percent(stock) : made
        end

        def in_use
          Store::InUse.for(@property, use)&.label
        end

        # Stems counted, else as many as the plants likely have.
        def counted
          return sizes.values.sum if sizes.any?

          facts && (facts.plants || facts.stems) ? Core::Decide::Effort.new(removal, facts).stems.round : 40
        end

        def from_record
          @from_record ||= { "product" => (product.id || product.main.key).to_s, "stock" => plain(product.main.percent),
                             "said" => counted_as(product), "said2" => counted_as(second),
                             "target" => usual(product, @params["said"] || counted_as(product)),
                             "target2" => second && usual(second, @params["said2"] || counted_as(second)),
                             "stems" => counted.to_s, "dose" => dose, "rate" => rate, "diameter" => "",
                             "area" => plain(units.from_si(:area, facts&.area_m2 || 100).round(1)),
                             "container" => plain(units.from_si(:volume, vessel == "jar" ? 500 : 15_000).round(1)) }
        end

        # Labels say percent of product; planning values are percent of active.
        def counted_as(product) = product&.labelled? ? "product" : "active"

        # What the label says for this use, the least of it; planning values where it says nothing.
        def usual(product, said)
          percent = product.usual_percent(removal)
          shown = Core::Mix::Strength.new(percent / 100.0, product.main).public_send(KINDS.key?(said) ? said : "active")
          plain(shown&.round(3))
        end

        # In mL or fl oz a stem: of stems counted by size the mean over all of them; else by the patch's size what the
        # group's records say, or a planning value.
        def dose
          ml = sizes.any? ? sizes.sum { |size, n| n * removal.dose_ml[size] } / sizes.values.sum.to_f : usage&.median
          plain(units.from_si(:volume, ml || 1).round(3))
        end

        # {size => stems} counted on the patch, of those sizes that the method has a dose for.
        def sizes
          @sizes ||= (facts&.sizes || {}).transform_keys(&:to_s)
                                         .select { |size, n| n.to_i.positive? && removal.dose_ml.key?(size) }
        end

        # What stands on the patch as the rules have it; nil without a patch that has a name.
        def facts = @facts ||= @patch&.facts(@today)

        def methods_here
          @patch&.plant ? @patch.plant.removals.keys.map { |key| Core::Knowledge.shipped.removal(key) } : []
        end

        # What a calibrated sprayer puts on 100 m², else what the group's records say, else a planning value.
        def rate
          own = usage.median / 1000 if usage&.own?
          plain(units.from_si(:rate, calibrated || own || removal.spray_l_per_100m2 || 5).round(2))
        end

        def calibrated = Store::Calibration.live[id: Whole.read(@params["calibration"].to_s)]&.litres_per_100m2

        def work_out
          check_stock
          doses = [dose_of(product, "target", "said"), (dose_of(second, "target2", "said2") if second)].compact
          container_ml = volume("container")
          besides = Besides.new(Besides::FIELDS.to_h { |field| [field, value(field)] })
          extras = besides.extras
          @errors.merge!(besides.errors)
          need = vessel == "jar" ? amount.jar : amount.tank
          return if errors.any? || need.nil?

          Core::Mix::Blend.new(doses:, extras:, total_ml: need.total_ml, need: need.steps, container_ml:).mixture
        rescue Core::BadInput => e
          @errors[e.field] = e.message
          nil
        end

        def check_stock
          return if product.id || @params["stock"].nil?

          stock = number("stock")
          return if stock.nil? || stock.between?(0.001, 100)

          @errors[:stock] = "The stock's strength is more than 0 and at most 100 %."
        end

        def dose_of(product, field, said)
          typed = number(field) or return
          kind = KINDS.key?(value(said)) ? value(said) : "active"
          Core::Mix::Blend::Dose.new(product:, strength: Core::Mix::Strength.read(typed, kind, product.main))
        rescue Core::BadInput => e
          @errors[field.to_sym] = e.message # of the second product beside the second's field
          nil
        end

        def plain(number) = number.to_s.delete_suffix(".0")
      end
    end
  end
end
