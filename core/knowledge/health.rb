# frozen_string_literal: true

module Thistle
  module Core
    class Knowledge
      # How sound the library is for naming plants: pairs that no set of looks separates, characters that never help,
      # gaps in what files tell.
      class Health
        APART = 0.5   # share of specimens in which one look must tell two plants apart
        SOLID = 1.5   # such shares added up over all looks: below it, a pair is hard to tell
        THIN = 12     # characters below which a plant is thinly described
        Pair = Value.define(:left, :right, :apart, :best)

        def initialize(knowledge)
          @knowledge = knowledge
          @characters = knowledge.characters.values
        end

        # All pairs of plants, those first that all looks together tell apart the least.
        def pairs
          @pairs ||= @knowledge.plants.values.combination(2).map { |left, right| pair(left, right) }.sort_by(&:apart)
        end

        # Pairs that no set of looks separates well.
        def hard_pairs = pairs.take_while { |pair| pair.apart < SOLID }

        # Characters that separate no two plants by APART or more.
        def idle_characters = @characters.reject { |character| separates?(character) }

        # Plants with few characters, or none of the looks that a winter leaves.
        def thin_plants = @knowledge.plants.values.select { |plant| plant.characters.size < THIN }

        # States that no plant shows.
        def unused_states
          @characters.reject(&:measured?).flat_map do |character|
            shown = @knowledge.plants.values.flat_map { |plant| plant.characters.fetch(character.key, {}).keys }
            (character.states.keys - shown).map { |state| "#{character.key}: #{state}" }
          end
        end

        # Invaders without a look-alike on file.
        def without_look_alikes
          @knowledge.invaders.select { |plant| Identify::Settlement.pairs(plant, @knowledge).empty? }
        end

        # Facts by their standing: {label => number}.
        def standing
          @knowledge.plants.values.flat_map(&:sources_used).tally.transform_keys { |key| @knowledge.source(key).label }
        end

        private

        def pair(left, right)
          sum, most, best = 0.0, -1.0, nil
          shares(left).zip(shares(right)).each_with_index do |(mine, theirs), n|
            apart = apart(mine, theirs)
            sum += apart
            most, best = apart, n if apart > most
          end
          Pair.new(left:, right:, apart: sum, best: @characters[best])
        end

        # Total variation distance of two rows of shares; 0 where one plant says nothing.
        def apart(mine, theirs)
          return 0.0 unless mine && theirs

          sum = 0.0
          mine.each_with_index { |share, n| sum += (share - theirs[n]).abs }
          sum / 2
        end

        # Of a plant, its shares in each state, character by character.
        def shares(plant)
          @shares ||= {}.compare_by_identity
          @shares[plant] ||= @characters.map { |character| character.shares(plant)&.values }
        end

        def separates?(character)
          n = @characters.index(character)
          @knowledge.plants.values.combination(2)
                    .any? { |left, right| apart(shares(left)[n], shares(right)[n]) >= APART }
        end
      end
    end
  end
end
