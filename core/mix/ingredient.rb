# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # One active in a product: percent by weight, grams of it on a litre of product, the most grams of its acid on a
      # hectare in a year. The first two give the product's density; one alone never does.
      Ingredient = Value.define(:active, :percent, :grams_per_litre, :most_g_per_ha) do
        def key = active.key
        def name = active.name

        # kg on a litre; nil where the label says only one of the two.
        def density = (grams_per_litre / (percent * 10.0) if percent && grams_per_litre)

        # Grams of acid on a litre of product; nil where grams are not said.
        def acid_per_litre = grams_per_litre && (grams_per_litre * active.acid_share)

        # Percent of acid by weight; nil where percent is not said.
        def acid_percent = percent && (percent * active.acid_share)

        # With what a density (kg on a litre) tells besides; as it is where both are said, or neither.
        def at_density(density)
          return self if density.nil?
          return with(grams_per_litre: percent * 10.0 * density) if percent && grams_per_litre.nil?
          return with(percent: grams_per_litre / (10.0 * density)) if grams_per_litre && percent.nil?

          self
        end
      end

      # What a label prints of an active: of the salt or ester, or of the acid in it.
      class Ingredient
        ACIDS = { percent: :acid_percent, grams_per_litre: :acid_per_litre }.freeze
        PRINTED = ACIDS.to_a.flatten.freeze

        # From what is printed, {one of PRINTED => number}; what is printed of the acid goes by the molar masses.
        def self.printed(active:, most_g_per_ha: nil, **told)
          whole = ->(name) { told[name] || told[ACIDS.fetch(name)]&.fdiv(active.acid_share) }
          new(active:, most_g_per_ha:, percent: whole[:percent], grams_per_litre: whole[:grams_per_litre])
        end
      end
    end
  end
end
