# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # “Two percent of what?” One strength said in every way: as a share of the volume that is product, and what
      # follows from it for an active of the product.
      class Strength
        # How a strength may be typed: what it is a percent or a weight of.
        KINDS = { "product" => "% product", "active" => "% active", "acid" => "% acid", "grams" => "g active/L",
                  "acid_grams" => "g acid/L", "ounces" => "fl oz/gal" }.freeze
        OUNCES = 128.0 # fluid ounces in a gallon

        attr_reader :share, :ingredient

        # What was typed, as a Strength. Raises BadInput (field :target) for one that no mixing makes, and for grams
        # where the label's grams on a litre are not known.
        def self.read(number, kind, ingredient)
          whole = new(1.0, ingredient).public_send(kind)
          raise BadInput.new("#{ingredient.name}: #{MISSING.fetch(kind)}", field: :target) unless whole
          raise BadInput.new("A strength is above 0.", field: :target) unless number.positive?

          share = number / whole.to_f
          if share > 1 + 1e-9
            whole = "#{Product.short(whole)} #{KINDS.fetch(kind)}"
            raise BadInput.new("That is stronger than the product itself (#{whole}): no mixing makes that.",
                               field: :target)
          end
          new([share, 1.0].min, ingredient)
        end

        MISSING = Hash.new("type its percent by weight from the label.").merge(
          "grams" => "type its grams (or pounds) of active on a litre (or gallon) from the label.",
          "acid_grams" => "type its grams (or pounds) of active on a litre (or gallon) from the label."
        ).freeze

        # share of the volume that is product, 0..1; the ingredient of it that is spoken of.
        def initialize(share, ingredient)
          @share, @ingredient = share, ingredient
          freeze
        end

        # Percent of the volume that is product.
        def product = share * 100

        # Percent of active and of acid, as labels count it: the product's percent by weight, thinned by volume.
        def active = ingredient.percent && (share * ingredient.percent)
        def acid = ingredient.percent && (share * ingredient.acid_percent)

        # Grams on a litre of mix; nil where the label's are not known.
        def grams = ingredient.grams_per_litre && (share * ingredient.grams_per_litre)
        def acid_grams = ingredient.grams_per_litre && (share * ingredient.acid_per_litre)

        # Fluid ounces of product to the gallon of finished mix.
        def ounces = share * OUNCES

        # {kind => number}, nil where it is not known.
        def to_h = KINDS.keys.to_h { |kind| [kind.to_sym, public_send(kind)&.round(6)] }
      end
    end
  end
end
