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

        # Expected bits of doubt removed, if it can be seen: the mutual information of plant and answer,
        # sum of p c log2 c over plants and states, less m log2 m over states (m: chance of the answer).
        # The strangers beside the likely plants count as plants: a look that only confirms a name is worth something.
        def gain = @gain ||= expected.values.sum { |m, mean| mean - (m * Math.log2(m)) }

        # Gain weighed by how easy the look is, and how likely it is that there is anything to see today.
        def worth = gain * Key::EFFORT.fetch(character.effort) * @key.shown(character)

        # What each answer would mean, likeliest first; answers under 4 % left out.
        def outcomes
          @outcomes ||= begin
            leads = @key.leads(character.key, likely.map(&:first))
            likely.map do |state, chance|
              leader, probability = leads.fetch(state)
              Outcome.new(state:, label: character.states.fetch(state), chance:, leader:, probability:)
            end
          end
        end

        private

        # [[state, chance]], the likeliest first; alike ones in the order of the file.
        def likely
          @likely ||= begin
            found = expected.transform_values(&:first).select { |_, chance| chance > 0.04 }
            found.sort_by.with_index { |(_, chance), n| [-chance, n] }
          end
        end

        # {state => [chance m of that answer, mean of c log2 c]}
        def expected = @expected ||= @key.expect(character.key)
      end
    end
  end
end
