# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # Can the figures of a label all be so? Percent by weight and grams on a litre give a density, two actives give
      # two; nothing that is made up like this weighs too little or too much. The usual slip is acid typed as active.
      class Densities
        AGREE = 0.03 # densities may differ by this share, as labels round

        def initialize(product)
          @product = product
          @given = product.ingredients.filter_map { |one| [one, one.density] if one.density }
          @all = [*@given.map(&:last), product.told_density].compact
        end

        # {field => words}
        def complaints
          odd = @all.find { |one| !one.between?(*span) }
          return { density: apart } if @all.size > 1 && (@all.max / @all.min) - 1 > AGREE
          return {} unless odd

          { (@given.any? { |_, one| one == odd } ? :grams : :density) => impossible(odd) }
        end

        # A product made up like this weighs between these, kg on a litre.
        def span
          @product.made&.fetch("densities", nil) || usual || Product::DENSITIES
        end

        private

        # Of its actives' usual make, where nobody says how this one is made up.
        def usual
          spans = @product.ingredients.map do |one|
            Knowledge.shipped.formulations.fetch(one.active.form)["densities"]
          end
          [spans.map(&:first).min, spans.map(&:last).max] if spans.any? && spans.all?
        end

        def apart
          "gives #{@all.map { |one| said(one) }.join(" and ")}: one of them is not what the label says"
        end

        def impossible(density)
          "gives #{said(density)}, and such a product weighs #{span.map { |one| Product.short(one) }.join(" to ")}. " \
            "#{acid_typed(density) || "Read the label once more."}"
        end

        # Typed as active, it would fit as acid: the usual slip.
        def acid_typed(density)
          one, = @given.find { |part, of| of == density && !part.active.one? }
          return unless one && (density / one.active.acid_share).between?(*span)

          "Does the label print acid? As acid it is #{said(density / one.active.acid_share)}."
        end

        def said(density) = "#{Product.short(density)} kg/L"
      end
    end
  end
end
