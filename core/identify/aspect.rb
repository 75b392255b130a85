# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # One way in which a plant may look on a day (knowledge/aspects.yml): a seedling, a young plant, shoots, a grown
      # one, one that turns, dead stems. What it shows differs from the plant's file in a few characters.
      class Aspect
        attr_reader :key, :label, :visible

        # visible: {organ => chance that it is there to be looked at}; looks: {character => [rows, the first that fits a
        # plant counts]}.
        def initialize(key:, label:, looks:, visible: {})
          @key, @label, @visible, @looks = key, label, visible.transform_keys(&:to_s).freeze,
looks.transform_keys(&:to_s)
          freeze
        end

        # Does it look otherwise than the file says in a character?
        def changes?(character, plant) = !row(character, plant).nil?

        # Keys of the characters in which it may look otherwise by the table.
        def characters = @looks.keys

        # {state => share} of a character in specimens of this kind, adding up to 1; nil where nothing is known.
        def shares(character, plant)
          plain, row = character.shares(plant), row(character, plant)
          return plain if row.nil? || (plain.nil? && !row["states"])

          mixed = row["states"] ? character.shares_of(row["states"]) : measured(character, plant, row)
          mix = row.fetch("mix", 1.0)
          (plain || even(character)).to_h { |state, share| [state, ((1 - mix) * share) + (mix * mixed.fetch(state))] }
        end

        private

        def row(character, plant)
          own = plant.aspects.dig(key, character.key)
          return { "mix" => 1.0, "states" => own } if own

          @looks.fetch(character.key, []).find { |one| character.for?(plant) && fits?(plant, one) }
        end

        def fits?(plant, row)
          traits = plant.traits.map(&:to_s)
          (row["forms"].nil? || row["forms"].include?(plant.form.to_s)) &&
            (row["any"].nil? || row["any"].intersect?(traits)) && !row.fetch("none", []).intersect?(traits) &&
            (row["has"].nil? || plant.characters.dig(*row["has"]))
        end

        # A length or number, bounded by what the grown plant reaches.
        def measured(character, plant, row)
          told = plant.characters.fetch(character.key)
          low, high = row["cm"] || row["times"].map { |times| times * told["high"] }
          high = [high, told["high"]].min
          character.shares_between([low, high / 2.0].min, high)
        end

        def even(character) = character.states.transform_values { 1.0 / character.states.size }
      end
    end
  end
end
