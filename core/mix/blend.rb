# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What goes into one vessel, and in which order: one or two products at their strengths, adjuvant, dye and
      # conditioner, and carrier to fill it. Volumes in mL; C1 V1 = C2 V2. The working says each step.
      class Blend
        # A product at a strength.
        Dose = Value.define(:product, :strength)
        # What goes in besides: percent of the volume, or grams on a litre.
        Extra = Value.define(:name, :percent, :grams_per_litre, :order)
        # One thing to pour: mL or grams in all, its place in the order.
        Part = Value.define(:name, :ml, :grams, :order, :kind)
        # The whole answer; parts in the order of pouring.
        Mixture = Value.define(:doses, :total_ml, :carrier_ml, :carrier, :parts, :loads, :load_ml, :last_load_ml,
                               :acid_g, :asks, :working) do
          def product_ml = parts.select { |part| part.kind == :product }.sum(&:ml)
          def product_share = product_ml / total_ml

          # [hours for which it is good, whose word that is]: the least of what goes into it; nil where nobody says.
          def keeps = doses.filter_map { |dose| dose.product.keeps }.min_by(&:first)

          # What of a part goes into one load of so many mL.
          def in_load(part, millilitres = load_ml)
            share = millilitres / total_ml
            part.with(ml: part.ml && (part.ml * share), grams: part.grams && (part.grams * share))
          end
        end

        MAX_ML = 5_000_000.0 # more than 5 m³ is a slip of the pen
        FIRST, REST, ADJUVANT, DYE, CONDITIONER = 0, 9, 6, 7, 1

        # doses: [Dose], extras: [Extra]; total_ml: what the work needs; container_ml: what the jar or tank holds.
        def initialize(doses:, total_ml:, container_ml: nil, extras: [], need: [])
          @doses, @extras, @need = doses, extras, need
          @total, @container = [total_ml, container_ml || total_ml].map(&:to_f)
          check
        end

        # The Mixture.
        def mixture
          load_ml = [@container, @total].min
          Mixture.new(doses: @doses, total_ml: @total, carrier_ml:, carrier: @doses.first.product.carrier, parts:,
                      loads:, load_ml:, last_load_ml: @total - ((loads - 1) * load_ml), acid_g:,
                      asks: @doses.filter_map { |dose| dose.product.asks_for }.uniq, working: (@need + steps).freeze)
        end

        private

        def carrier_ml = @total * (1 - shares)
        def shares = @doses.sum { |dose| dose.strength.share } + @extras.sum { |extra| (extra.percent || 0) / 100.0 }
        def loads = ((@total / @container) - 1e-9).ceil.clamp(1, nil)

        # Grams of acid of each active, of all products that hold it; nil where a label figure is missing.
        def acid_g
          found = @doses.flat_map { |dose| dose.product.ingredients.map { |one| [one.key, acid_of(dose, one)] } }
          found.group_by(&:first).transform_values { |some| some.map(&:last).then { |grams| grams.sum if grams.all? } }
        end

        def acid_of(dose, one) = one.acid_per_litre&.*(@total / 1000 * dose.strength.share)

        # Half the carrier first, then each in its order, then carrier to the mark. In oil it is all one.
        def parts
          products = @doses.map { |dose| product_part(dose) }
          extras = @extras.map do |extra|
            Part.new(name: extra.name, ml: extra.percent && (extra.percent / 100.0 * @total), order: extra.order,
                     grams: extra.grams_per_litre && (extra.grams_per_litre * @total / 1000), kind: :extra)
          end
          carrier = [[FIRST, "to half"], [REST, "to the mark"]].map do |order, words|
            Part.new(name: "#{@doses.first.product.carrier}, #{words}", ml: carrier_ml / 2, order:, kind: :carrier)
          end
          [*carrier, *products, *extras].sort_by { |part| [part.order, part.name] }.freeze
        end

        def product_part(dose)
          made = Knowledge.shipped.formulations[dose.product.form]
          Part.new(name: dose.product.name, ml: @total * dose.strength.share, kind: :product,
                   order: made ? made["order"] : Knowledge.shipped.formulations["solution"]["order"])
        end

        def check
          refuse :amount, "Nothing to mix for: give stems or an area." unless @total.positive?
          refuse :amount, "More than 5 000 L: check the amount. Did you mean mL?" if @total > MAX_ML
          refuse :container, "The container holds more than nothing." unless @container.positive?
          if @doses.map { |dose| dose.product.carrier }.uniq.size > 1
            carriers = @doses.map { |dose| dose.product.carrier }.uniq.join(", the other into ")
            refuse :second, "One goes into #{carriers}: they make no tank together."
          end
          refuse :target, "Together they are more than the vessel: no room for carrier." if shares > 1 + 1e-9
        end

        def refuse(field, message) = raise(BadInput.new(message, field:))

        def steps
          @doses.flat_map { |dose| dose_steps(dose) } + [rest_step] + acid_steps
        end

        def dose_steps(dose)
          strength = dose.strength
          percent = Product.short(strength.product)
          [step("Share that is #{dose.product.name}", share_said(strength), "#{percent} % of the volume"),
           step(dose.product.name, "#{said(@total)} × #{percent} ÷ 100", @total * strength.share, unit: :volume)]
        end

        def share_said(strength)
          return "as typed, percent of product" unless strength.ingredient.percent

          "#{Product.short(strength.active)} % ÷ #{Product.short(strength.ingredient.percent)} % active"
        end

        def rest_step
          step("Carrier (#{@doses.first.product.carrier})", "#{said(@total)} − all that is poured in", carrier_ml,
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
