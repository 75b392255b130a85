# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # How one way of saying a Strength follows from the share of the mix that is product: in words for the working,
      # or which figure of the label is missing for it.
      class Conversion
        def initialize(strength, way)
          @strength, @way = strength, way
          @product, @one = strength.product, strength.ingredient
        end

        # "20 mL/L × 480 g/L × 0.741 × 187 L/ha"
        def formula
          return share_formula if @way.percent?

          [in_product, loading, acid, (thinned if @way.weight?), (ground if @way.ground?)].compact.join(" × ")
        end

        # What has to be known besides; nil where it can be said.
        def missing
          return if @strength.in(@way.key)
          return ground_missing if @way.ground? && @strength.spray.nil?
          return "#{@product.name} is weighed, not measured: say an amount by weight." if @product.dry? && by_volume?
          return missing_loading unless @way.of == :product

          "#{@product.name}: type its density (kg/L), or both percent and grams, from the label."
        end

        private

        def by_volume? = !@way.mass? && @way.of == :product

        def ground_missing
          "A rate on the ground needs the spray volume that carries it: choose the tank, and type that volume."
        end

        def missing_loading
          return "#{@one.name}: type its percent by weight from the label." if @way.percent?

          "#{@one.name}: type its g/L (or lb/gal) from the label."
        end

        def short(number) = Product.short(number)
        def percent = @strength.product_percent

        def share_formula
          return "#{short(@strength.share * 1000)} g/L × #{short(@one.percent)} %" if @product.dry?
          return "#{short(percent / 100)} of the volume" if @way.of == :product

          whole = @way.of == :acid ? @one.acid_percent : @one.percent
          "#{short(percent / 100)} × #{short(whole)} % #{@way.of} in the product"
        end

        def in_product = "#{short(@strength.share * 1000)} #{@product.dry? ? "g" : "mL"}/L"

        # g of active, or of product, in a mL of it.
        def loading
          return ("#{short(@product.density)} g/mL" if (@way.mass? || @way.weight?) && !@product.dry?) if product?

          "#{short(@product.loading(@one) / 1000)} g active/#{@product.dry? ? "g" : "mL"}"
        end

        def acid = (format("%.4f acid in active", @one.active.acid_share) if @way.of == :acid)
        def product? = @way.of == :product
        def thinned = "1 ÷ the mass of 1 L of mix"
        def ground = "#{short(@strength.spray)} L/ha"
      end
    end
  end
end
