# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # What looking at one more character would tell: the bits it is expected to save, and what each answer means.
      class Look
        Outcome = Value.define(:state, :label, :chance, :leader, :probability)

        attr_reader :character

        def initialize(key, character)
          @key, @character = key, character
        end

        # Expected bits of doubt removed.
        def gain = @key.doubt - outcomes_with_keys.sum { |_, chance, after| chance * after.doubt }

        # Gain weighed by how easy the look is.
        def worth = gain * Key::EFFORT.fetch(character.effort)

        # What each answer would mean, likeliest first; answers under 4 % left out.
        def outcomes
          outcomes_with_keys.select { |_, chance, _| chance > 0.04 }.sort_by { |_, chance, _| -chance }.map do |state, chance, after|
            Outcome.new(state:, label: character.states.fetch(state), chance:, leader: after.top.plant,
                        probability: after.top.probability)
          end
        end

        private

        def outcomes_with_keys
          @outcomes_with_keys ||= character.states.keys.map do |state|
            chance = @key.weights.sum { |plant, p| p * @key.chance(plant, character.key, state) }
            [state, chance, @key.plus(character.key, state)]
          end
        end
      end
    end
  end
end
