# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Two plants side by side: only the characters that separate them, the deciding ones first. With a site, as both
      # stand there on a day.
      class Duel
        APART = 0.35 # share of specimens that differ, below which a character does not help
        # shown: is it likely to be there to see on the day?
        Row = Value.define(:character, :left, :right, :deciding, :apart, :shown)

        attr_reader :left, :right, :text, :source

        def initialize(left, right, site: nil, date: site&.today, knowledge: Knowledge.shipped)
          @left, @right, @knowledge = left, right, knowledge
          @mixtures = site && [left, right].map { |plant| Mixture.new(plant, site.calendar(plant), date) }
          @turn = site && Turn.new(site, date)
          pair = Settlement.pairs(left, knowledge).find { |other| other.plant == right }
          @deciding, @text, @source = pair ? [pair.by, pair.text, pair.source] : [[], nil, nil]
        end

        # Deciding ones in the order of the file, then the better a character separates the sooner.
        def rows
          @rows ||= @knowledge.characters.values.filter_map { |character| row(character) }
                              .sort_by do |row|
                                [@deciding.index(row.character.key) || 99, row.shown ? 0 : 1, -row.apart,
                                 row.character.effort]
                              end
        end

        private

        # Only what at least one file describes: custom alone separates nobody.
        def row(character)
          return unless character.described?(left) || character.described?(right)

          apart = apart(character) or return
          deciding = @deciding.include?(character.key)
          return unless deciding || apart >= APART

          Row.new(character:, left: expected(character, left), right: expected(character, right), deciding:, apart:,
                  shown: shown?(character))
        end

        def apart(character)
          return character.apart(left, right) unless @mixtures

          Character.distance(*@mixtures.map { |mixture| mixture.looks(character, @knowledge.aspects) })
        end

        def shown?(character)
          return true unless @mixtures

          @turn.shows?(character.shows) &&
            @mixtures.all? { |mixture| mixture.shown(character, @knowledge.aspects) >= Key::SEEN }
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
