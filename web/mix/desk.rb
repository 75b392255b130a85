# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Reads what was typed on the mix bench: one product or two and their strengths, stems or ground, what goes in
      # besides; in the property's units.
      class Desk
        include Numbers

        DEFAULTS = { "vessel" => "jar", "plants" => "", "each" => "", "spacing" => "", "cut" => "", "walk" => "20",
                     **Additives::DEFAULTS }.freeze
        WAYS = Core::Mix::Way::ALL

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

          DEFAULTS[field] || usually[field]
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

        def use = removal.use

        # Methods that take such a vessel.
        def removals = Core::Knowledge.shipped.methods_of_removal.values.select { |one| one.herbicide == wanted }

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

        # How much to have at hand, and the way there (Core::Mix::BatchSize); nil where nobody knows what days take, or
        # the walk cannot be read.
        attr_reader :batch

        # Ways of saying a strength that this product and vessel allow, {group => {key => Way}}.
        def ways(of = product)
          dry, tank = of.dry?, vessel == "tank"
          found = WAYS.values.select do |way|
            (tank || !way.ground?) && (way.of != :product || (way.mass? ? dry : !dry) || way.weight?)
          end
          found = found.reject { |way| dry && (way.weight? || (way.percent? && way.of == :product)) }
          found.group_by(&:group)
        end

        # L of spray on a hectare; nil for a jar.
        def spray = (amount.ml_a_hundred&.fdiv(10) if vessel == "tank")

        # What of each herbicide method would reach the plant, and what would fall beside; nil without a plant.
        def off_target
          @off_target ||= OffTargetBoard.new(@patch, @property, @today, product) if @patch&.plant
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
        def additives? = ["second", *Additives::FIELDS].any? { |field| !@params[field].to_s.empty? }

        # What the work record is told of the products in the vessel, {field => what is typed there}.
        def poured
          answer.doses.zip(["", "second_"]).each_with_object({}) do |(dose, which), all|
            poured = answer.total_ml * dose.strength.share
            kind = dose.product.dry? ? :mass : :volume
            all[:"#{which}product"] = plain(units.from_si(kind, poured).round(2))
            all[:"#{which}product_id"] = dose.product.id
          end
        end

        # Actives in the vessel, each once.
        def actives = [product, second].compact.flat_map { |one| one.ingredients.map(&:active) }.uniq(&:key)

        # What has to be said of the products where they go: [[words, source]].
        def notes = [product, second].compact.flat_map { |one| one.on(use).notes }.uniq

        # The strength in every way, for the first product; nil without an answer.
        def strength = (answer.doses.first.strength if answer)

        # What stands on the patch as the rules have it; nil without a patch that has a name.
        def facts = @facts ||= @patch&.facts(@today)

        # Litres on 100 m² of the sprayer that was chosen; nil for none.
        def calibrated = Store::Calibration.at_hand(Whole.read(@params["calibration"].to_s))&.litres_per_100m2

        private

        def usually = @usually ||= Usually.new(self)
        def wanted = vessel == "jar" ? :stem : :foliar

        # A product of the shelf by its number, or an active by its key.
        def named(field)
          key = @params[field].to_s
          shelf = Store::Product.at_hand(Whole.read(key)) if Whole.read(key).positive?
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

        def methods_here
          @patch&.plant ? @patch.plant.removals.keys.map { |key| Core::Knowledge.shipped.removal(key) } : []
        end

        def work_out
          check_stock
          doses = [dose_of(product, "target", "said"), (dose_of(second, "target2", "said2") if second)].compact
          container_ml, extras = volume("container"), extras_typed
          need = vessel == "jar" ? amount.jar : amount.tank
          return if errors.any? || need.nil?

          @batch = batch_of(need)
          Core::Mix::Blend.new(doses:, extras:, total_ml: need.total_ml, need: need.steps, container_ml:, use:,
                               at_hand_ml: batch&.best&.ml).mixture
        rescue Core::BadInput => e
          @errors[e.field] = e.message
          nil
        end

        def extras_typed
          additives = Additives.new(Additives::FIELDS.to_h { |field| [field, value(field)] }, comma: units.comma)
          additives.extras.tap { @errors.merge!(additives.errors) }
        end

        def dose_of(product, field, said)
          found = complaining_at(field) { TypedStrength.new(value(field), value(said), self).of(product) }
          Core::Mix::Blend::Dose.new(product:, strength: found) if found
        end

        # Of the second product beside the second's field.
        def complaining_at(field)
          yield
        rescue Core::BadInput => e
          @errors[field.to_sym] = e.message
          nil
        end

        # What was typed goes before the planning value, and is brought whatever it costs.
        def batch_of(need)
          minutes, rates = number("walk"), @property.rates
          return unless usage && minutes&.between?(0, 600)

          count, each = vessel == "jar" ? [amount.stems, amount.dose_ml] : [amount.hundreds, amount.ml_a_hundred]
          Core::Mix::BatchSize.new(stems: count, usage: usage.about(each), litre: rates.litre,
                                   walk: rates.hour * minutes / 60,
                                   least: need.total_ml * Core::Mix::Need::SPARE)
        end

        def check_stock
          return if product.id || @params["stock"].nil?

          stock = number("stock")
          return if stock.nil? || stock.between?(0.001, 100)

          @errors[:stock] = "The stock's strength is more than 0 and at most 100 %."
        end

        def plain(number) = number.to_s.delete_suffix(".0")
      end
    end
  end
end
