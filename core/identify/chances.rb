# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # The chance of every answer in every plant, worked out once: rows of numbers in the order of `plants`, for plants
      # as their files describe them and for each aspect in which they look otherwise.
      #
      # (1 - e) x share of the state in the plant, some of it taken for the states beside it, + e / states, e being the
      # character's observer error. Beside every plant of the library stands a stranger like it, that the library does
      # not know. It answers like its kin as often as look-alikes of the library are alike in that character, and like
      # any plant in the rest: a hollow pith says more for a name than a thornless stem.
      class Chances
        NOT_THERE = 0.15 # someone sees a part that such a plant does not have (memory)
        KINSHIP = 0.7    # how alike look-alikes are in a character of which fewer than FEW pairs tell (memory)
        FEW = 5
        DISTINCT = 0.4   # never taken for less alike than this

        attr_reader :plants, :characters, :aspects

        # A library's, worked out once.
        def self.of(knowledge)
          return @ours.last if @ours&.first.equal?(knowledge)

          @kept ||= ObjectSpace::WeakMap.new
          @kept[knowledge] ||= new(knowledge.plants.values, knowledge.characters, knowledge.aspects)
        end

        # Those of the library that is in use, worked out before.
        def self.keep(knowledge, chances) = @ours = [knowledge, chances].freeze

        # aspects: {key => Aspect}.
        def initialize(plants, characters, aspects)
          @plants, @characters, @aspects = plants, characters, aspects
          @pairs = pairs
          @index = plants.each_with_index.to_h { |plant, n| [plant.key, n] }
          @kinships = characters.transform_values { |character| kinship(character) }
          @rows = characters.transform_values { |character| rows_of(character) }
          @logs = @rows.transform_values do |rows|
            rows.transform_values { |row| row.map { |c| c * Math.log2(c) }.freeze }
          end
          @looking = aspects.transform_values { |aspect| looking(aspect) }
          @having = characters.transform_values { |character| plants.map { |plant| character.for?(plant) } }
        end

        def index(plant) = @index.fetch(plant.key)

        # {state => row} of a character: first every plant, then every plant's stranger. aspect: the key of one, or nil
        # for the plant as its file has it.
        def rows(key, aspect = nil) = (aspect && @looking.fetch(aspect)[key]) || @rows.fetch(key)

        # c log2 c of the plain rows.
        def logs(key) = @logs.fetch(key)

        # Of the plants of these numbers, those that have such a part at all.
        def having(key, among)
          has = @having[key]
          among.select { |n| has[n] }
        end

        private

        # {character => {state => row}} of those that an aspect changes in any plant.
        def looking(aspect)
          changed = characters.values.select { |character| plants.any? { |plant| aspect.changes?(character, plant) } }
          changed.to_h { |character| [character.key, rows_of(character, aspect)] }
        end

        def rows_of(character, aspect = nil)
          columns = plants.each_with_index.map do |plant, n|
            plain = aspect && !aspect.changes?(character, plant)
            plain ? @columns.fetch(character.key)[n] : column(character, plant, aspect)
          end
          (@columns ||= {})[character.key] ||= columns
          kinship = @kinships.fetch(character.key)
          character.states.keys.each_with_index.to_h do |state, n|
            [state, with_strangers(columns.map { |column| column[n] }, kinship)]
          end
        end

        def column(character, plant, aspect)
          shares = aspect ? aspect.shares(character, plant) : character.shares(plant)
          return character.answers(shares).values if shares

          size = character.states.size
          Array.new(size, (character.for?(plant) ? 1.0 : NOT_THERE) / size)
        end

        def with_strangers(row, kinship)
          mean = row.sum / row.size
          [*row, *row.map { |chance| (kinship * chance) + ((1 - kinship) * mean) }].freeze
        end

        # Look-alikes of the library, both of them in it: [[plant, other]].
        def pairs
          by_key = plants.to_h { |plant| [plant.key, plant] }
          plants.flat_map do |plant|
            others = plant.look_alikes.filter_map { |row| by_key[row["plant"]] }
            others.map { |other| [plant, other] }
          end
        end

        # The share of specimens in which two look-alikes show the same, over the pairs that are described.
        def kinship(character)
          alike = @pairs.filter_map do |pair|
            1 - character.apart(*pair) if pair.all? { |plant| character.described?(plant) }
          end
          alike.size < FEW ? KINSHIP : [alike.sum / alike.size, DISTINCT].max
        end
      end
    end
  end
end
