# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # “Two percent of what?” One strength said in every way that labels have (Way): a share of the mix that is
      # product, and what follows from it for an active of the product.
      class Strength
        OIL_DENSITY = 0.85 # kg on a litre of bark oil (memory)
        DENSITIES = { "water" => 1.0 }.freeze
        DENSEST = 0.6 # kg of a dry product on a litre of mix; more is a paste

        # number: Float; way: a key of Way; spray: L on a hectare, for ways that count on ground. Raises BadInput (field
        # :target) for one that no mixing makes, for what the label does not tell, for ground without a spray volume.
        def self.read(number, way, product, ingredient: product.main, spray: nil, carrier: "water")
          raise BadInput.new("A strength is above 0.", field: :target) unless number.positive?

          whole = new(product.dry? ? DENSEST : 1.0, product, ingredient:, spray:, carrier:)
          most = whole.in(way) or refuse(Conversion.new(whole, Way::ALL.fetch(way)).missing)
          share = whole.share_for(number, Way::ALL.fetch(way))
          refuse(too_strong(most, way, product)) unless share.positive? && share <= whole.share * (1 + 1e-9)
          new([share, whole.share].min, product, ingredient:, spray:, carrier:)
        end

        def self.too_strong(most, way, product)
          return "That is more than #{(DENSEST * 1000).round} g/L: it would not come apart." if product.dry?

          "That is stronger than the product itself (#{Product.short(most)} #{Way::ALL[way].label}). Enter a " \
            "lower strength."
        end

        def self.refuse(message) = raise(BadInput.new(message, field: :target))
        private_class_method :too_strong, :refuse

        attr_reader :share, :product, :ingredient, :spray

        # share: mL of a liquid product in a mL of mix, g of a dry one; the ingredient of it that is spoken of.
        def initialize(share, product, ingredient: product.main, spray: nil, carrier: "water")
          @share, @product, @ingredient, @spray, @carrier = share, product, ingredient, spray, carrier
          freeze
        end

        # Float by a key of Way; nil where the label, or a spray volume, does not tell it.
        def in(key)
          way = Way::ALL.fetch(key)
          return percent(way.of) if way.percent?
          return by_weight(way.of) if way.weight?

          amount = in_litre(way) or return
          way.ground? ? on_ground(amount, way) : (amount / Quantity.of(1, "L") / way.size).ratio
        end

        # The share at which it is so much, in a way that can be said of it.
        def share_for(number, way)
          return number / (self.in(way.key) / share) unless way.weight?

          # w = 100 a s / (s d + (1 − s) c) turned round, a: kg of it in a litre of product
          part = kilograms(way.of) / share
          number * thin / ((100 * part) - (number * (product.density - thin)))
        end

        # Percent of the volume that is product; nil for a dry one.
        def product_percent = (share * 100 unless product.dry?)

        # Percent of active and of acid, as labels count it: the product's percent by weight, thinned by volume.
        def active = ingredient.percent && (share * ingredient.percent)
        def acid = ingredient.percent && (share * ingredient.acid_percent)

        # Grams on a litre of mix; nil where the label's are not known.
        def grams = product.loading(ingredient)&.*(share)
        def acid_grams = grams && (grams * ingredient.active.acid_share)

        # {way's key => number}, nil where it is not known.
        def to_h = Way::ALL.keys.to_h { |key| [key.to_sym, self.in(key)&.round(6)] }

        private

        def percent(of) = { product: product_percent, active:, acid: }.fetch(of)
        def thin = DENSITIES.fetch(@carrier, OIL_DENSITY)

        # Of the mass of the whole mix.
        def by_weight(of)
          part = kilograms(of)
          part && product.density && (100 * part / ((share * product.density) + ((1 - share) * thin)))
        end

        # kg on a litre of mix.
        def kilograms(of)
          return product.density&.*(share) if of == :product

          (of == :active ? grams : acid_grams)&.fdiv(1000)
        end

        # What of it is in a litre, a volume or a mass, as the way asks; nil where that cannot be said.
        def in_litre(way)
          return mass(way.of) if way.mass?

          Quantity.of(share, "L") unless product.dry?
        end

        def mass(of)
          kilos = of == :product && product.dry? ? share : kilograms(of)
          kilos && Quantity.of(kilos, "kg")
        end

        def on_ground(amount, way)
          spray && (amount / Quantity.of(1, "L") * Quantity.of(spray, "L/ha") / way.size).ratio
        end
      end
    end
  end
end
