# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # One active in a product, as its label says: percent by weight, grams of it on a litre of product, the most grams
      # of its acid on a hectare in a year. The first two give the product's density; one alone never does.
      Ingredient = Value.define(:active, :percent, :grams_per_litre, :most_g_per_ha) do
        def key = active.key
        def name = active.name

        # kg on a litre; nil where the label says only one of the two.
        def density = (grams_per_litre / (percent * 10.0) if percent && grams_per_litre)

        # Grams of acid on a litre of product; nil where grams are not said.
        def acid_per_litre = grams_per_litre && (grams_per_litre * active.acid_share)

        # Percent of acid by weight; nil where percent is not said.
        def acid_percent = percent && (percent * active.acid_share)
      end
    end
  end
end
