# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Two plants side by side: only the characters that separate them, the deciding ones first.
      class Duel
        Row = Value.define(:character, :left, :right, :deciding)

        attr_reader :left, :right, :text

        def initialize(left, right, knowledge: Knowledge.shipped)
          @left, @right, @knowledge = left, right, knowledge
          pair = Settlement.pairs(left, knowledge).find { |other, _| other == right }
          @deciding, @text = pair ? pair[1..2] : [[], nil]
        end

        def rows
          shared = left.characters.keys & right.characters.keys
          shared.reject { |key| states(left, key) == states(right, key) }
                .map { |key| row(key) }.sort_by { |row| [row.deciding ? 0 : 1, row.character.effort] }
        end

        private

        def row(key)
          Row.new(character: @knowledge.characters.fetch(key), left: states(left, key), right: states(right, key),
                  deciding: @deciding.include?(key))
        end

        # States that can be expected: {state => how often}, the never ones left out.
        def states(plant, key) = plant.characters[key].except(*plant.characters[key].select { |_, v| v == "never" }.keys)
      end
    end
  end
end
