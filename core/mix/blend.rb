# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What goes into one vessel, and in which order: one or two products at their strengths, adjuvant, dye and
      # conditioner, and carrier to fill it. Volumes in mL; C1 V1 = C2 V2. The working says each step.
      class Blend
        # A product at a strength.
        Dose = Value.define(:product, :strength)
        # What goes in besides: percent of the volume, or grams on a litre; in_water: it serves nothing in oil.
        Extra = Value.define(:name, :percent, :grams_per_litre, :order, :in_water)
        # One thing to pour: mL or grams in all, its place in the order.
        Part = Value.define(:name, :ml, :grams, :order, :kind)
        # The whole answer; parts in the order of pouring.
        # at_hand_ml: as much as to bring, of which what is not wanted stays unmixed.
        Mixture = Value.define(:doses, :total_ml, :at_hand_ml, :carrier_ml, :carrier, :parts, :loads, :load_ml,
                               :last_load_ml, :acid_g, :asks, :working) do
          def product_ml = products.sum { |part| part.ml || 0.0 }
          def products = parts.select { |part| part.kind == :product }

          # [hours for which it is good, whose word that is]: the least of what goes into it; nil where nobody says.
          def keeps = doses.filter_map { |dose| dose.product.keeps }.min_by(&:first)

          # What of a part goes into one load of so many mL.
          def in_load(part, millilitres = load_ml)
            share = millilitres / total_ml
            part.with(ml: part.ml && (part.ml * share), grams: part.grams && (part.grams * share))
          end

          # What of each is brought along, the carrier in one: [Part].
          def to_bring
            whole = parts.map { |part| in_load(part, at_hand_ml) }
            pouring, others = whole.partition { |part| part.kind == :carrier }
            carried = pouring.sum(&:ml)
            others << pouring.first.with(name: carrier, ml: carried) if carried.positive?
            others
          end
        end

        MAX_ML = 5_000_000.0 # more than 5 m³ is a slip of the pen
        FIRST, REST, ADJUVANT, DYE, CONDITIONER = 0, 9, 6, 7, 1

        # doses: [Dose], extras: [Extra]; total_ml: what the work needs; container_ml: what the jar or tank holds; use:
        # where it goes, a key of Product::USES; at_hand_ml: how much to bring. Raises BadInput by field.
        def initialize(doses:, total_ml:, container_ml: nil, extras: [], need: [], use: nil, at_hand_ml: nil)
          @doses, @extras, @need = doses, extras, need
          @use = use || doses.first.product.main.active.uses.keys.first
          @total, @container = [total_ml, container_ml || total_ml].map(&:to_f)
          @at_hand = [at_hand_ml || (@total * Need::SPARE), @total].max
          check
        end

        # The Mixture.
        def mixture
          load_ml = [@container, @total].min
          Mixture.new(doses: @doses, total_ml: @total, at_hand_ml: @at_hand, carrier_ml:, carrier:, parts:, loads:,
                      load_ml:, last_load_ml: @total - ((loads - 1) * load_ml), acid_g:,
                      asks: @doses.filter_map { |dose| dose.product.asks_for }.uniq, working: (@need + steps).freeze)
        end

        private

        def carrier_ml = [@total * (1 - shares), 0.0].max
        def carrier = carriers.first
        def carriers = @carriers ||= @doses.map { |dose| dose.product.on(@use).carrier }

        # What is weighed takes no room worth counting.
        def shares = @doses.sum { |dose| wet_share(dose) } + @extras.sum { |extra| (extra.percent || 0) / 100.0 }
        def wet_share(dose) = dose.product.dry? ? 0.0 : dose.strength.share
        def loads = ((@total / @container) - 1e-9).ceil.clamp(1, nil)

        # Grams of acid of each active, of all products that hold it; nil where a label figure is missing.
        def acid_g
          found = @doses.flat_map { |dose| dose.product.ingredients.map { |one| [one.key, acid_of(dose, one)] } }
          found.group_by(&:first).transform_values { |some| some.map(&:last).then { |grams| grams.sum if grams.all? } }
        end

        def acid_of(dose, one) = dose.product.acid_loading(one)&.*(@total / 1000 * dose.strength.share)

        # Half the carrier first, then each in its order, then carrier to the mark. In oil it is all one.
        def parts
          products = @doses.map { |dose| product_part(dose) }
          extras = @extras.map do |extra|
            Part.new(name: extra.name, ml: extra.percent && (extra.percent / 100.0 * @total), order: extra.order,
                     grams: extra.grams_per_litre && (extra.grams_per_litre * @total / 1000), kind: :extra)
          end
          [*carried, *products, *extras].sort_by { |part| [part.order, part.name] }.freeze
        end

        def carried
          return [] unless carrier_ml.positive?

          [[FIRST, "to half"], [REST, "to the mark"]].map do |order, words|
            Part.new(name: "#{carrier}, #{words}", ml: carrier_ml / 2, order:, kind: :carrier)
          end
        end

        def product_part(dose)
          made = dose.product.made || Knowledge.shipped.formulations["solution"]
          amount = @total * dose.strength.share
          Part.new(name: dose.product.name, kind: :product, order: made["order"],
                   **(dose.product.dry? ? { grams: amount } : { ml: amount }))
        end

        def check
          refuse :amount, "Nothing to mix for: give stems or an area." unless @total.positive?
          refuse :amount, "More than 5 000 L: check the amount. Did you mean mL?" if @total > MAX_ML
          refuse :container, "The container holds more than nothing." unless @container.positive?
          @doses.zip(%i[product second]) do |dose, field|
            dose.product.on(@use).refusal&.then { |words| refuse(field, words) }
          end
          if carriers.uniq.size > 1
            refuse :second, "One product needs #{carriers.uniq.join(", the other ")}. They cannot go in one tank."
          end
          if carrier != "water" && @extras.any?(&:in_water)
            refuse :ams, "Ammonium sulfate answers hard water: there is none in #{carrier}."
          end
          refuse :target, "Together they are more than the vessel: no room for carrier." if shares > 1 + 1e-9
        end

        def refuse(field, message) = raise(BadInput.new(message, field:))

        def steps
          @doses.flat_map { |dose| dose_steps(dose) } + [rest_step] + acid_steps
        end

        def dose_steps(dose)
          strength = dose.strength
          return dry_steps(dose) if dose.product.dry?

          percent = Product.short(strength.product_percent)
          [step("Share that is #{dose.product.name}", share_said(strength), "#{percent} % of the volume"),
           step(dose.product.name, "#{said(@total)} × #{percent} ÷ 100", @total * strength.share, unit: :volume)]
        end

        def dry_steps(dose)
          grams = Product.short(dose.strength.share * 1000)
          [step(dose.product.name, "#{said(@total)} × #{grams} g/L", @total * dose.strength.share,
                unit: :mass)]
        end

        def share_said(strength)
          return "as typed, percent of product" unless strength.ingredient.percent

          "#{Product.short(strength.active)} % ÷ #{Product.short(strength.ingredient.percent)} % active"
        end

        def rest_step
          step("Carrier (#{carrier})", "#{said(@total)} − all that is poured in", carrier_ml,
               unit: :volume)
        end

        def acid_steps
          @doses.flat_map { |dose| dose.product.ingredients }.map do |one|
            step("Acid in #{one.name}", "#{one.active.acid_molar_mass} ÷ #{one.active.salt_molar_mass} g/mol",
                 format("%.4f", one.active.acid_share), source: "molar_mass")
          end
        end

        def step(label, formula, value, unit: nil, source: "dilution")
          Step.new(label:, formula:, value:, unit:, source:)
        end

        def said(ml) = "{volume:#{ml.round(3)}}"
      end
    end
  end
end
