# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Two plants side by side: only the characters that separate them, the deciding ones first.
      class Duel
        APART = 0.35 # share of specimens that differ, below which a character does not help
        Row = Value.define(:character, :left, :right, :deciding, :apart)

        attr_reader :left, :right, :text, :source

        def initialize(left, right, knowledge: Knowledge.shipped)
          @left, @right, @knowledge = left, right, knowledge
          pair = Settlement.pairs(left, knowledge).find { |other| other.plant == right }
          @deciding, @text, @source = pair ? [pair.by, pair.text, pair.source] : [[], nil, nil]
        end

        # Deciding ones in the order of the file, then the better a character separates the sooner.
        def rows
          @rows ||= @knowledge.characters.values.filter_map { |character| row(character) }
                              .sort_by do |row|
                                [@deciding.index(row.character.key) || 99, -row.apart, row.character.effort]
                              end
        end

        private

        # Only what at least one file describes: custom alone separates nobody.
        def row(character)
          return unless character.described?(left) || character.described?(right)

          apart = character.apart(left, right) or return
          deciding = @deciding.include?(character.key)
          return unless deciding || apart >= APART

          Row.new(character:, left: expected(character, left), right: expected(character, right), deciding:, apart:)
        end

        # {state => how often} to be expected, the never ones left out; for a measured one {"low" => , "high" => }.
        def expected(character, plant)
          return plant.characters.fetch(character.key) if character.measured? && character.described?(plant)

          character.told(plant).reject { |_, often| often == "never" }
        end
      end
    end
  end
end
