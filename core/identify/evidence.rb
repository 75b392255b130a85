# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # What was seen, weighed against every plant and stranger in every aspect: the prior times the chance of every
      # answer, summed over aspects, so that answers which belong together speak together.
      class Evidence
        LOOKS_SO, SHOWS = 0.2, 0.12 # of a plant's chance that lies in an aspect; of its specimens that show it (memory)
        FAINT = 0.03 # of every plant's chance, below which an aspect is left out of what is asked

        # seen: {character => state}; absent: {character => [states that it does not have]}; unlisted: weight of plants
        # that the library does not know.
        def initialize(chances:, prior:, seen:, absent:, unlisted:)
          @chances, @prior, @seen, @absent, @unlisted = chances, prior, seen, absent, unlisted
        end

        # Numbers in the order of Chances#plants, then those of the strangers beside them, adding up to 1.
        def probabilities
          @probabilities ||= begin
            sums = joint.transpose.map(&:sum)
            total = sums.sum
            sums.map { |sum| sum / total }.freeze
          end
        end

        # What to expect of an answer that looks otherwise in some aspect: its chance m over some plants and strangers
        # ([[index, probability]]), and the mean of c log2 c, c being its chance in each.
        def expect(character, state, among)
          parts = aspects(among).map { |aspect, shares| [@chances.rows(character, aspect)[state], shares] }
          m = mean = 0.0
          among.each_with_index do |(n, p), at|
            c = 0.0
            parts.each { |row, shares| c += row[n] * shares[at] }
            m += p * c
            mean += p * c * Math.log2(c)
          end
          [m, mean]
        end

        # The chance that an organ is there to be seen, over plants by number.
        def shown(organ, among)
          (@shown ||= {})[organ] ||= begin
            all = seen = 0.0
            @prior.parts.each_with_index do |part, at|
              weights, visible = joint[at], part.visible.fetch(organ)
              among.each do |n|
                all += weights[n]
                seen += weights[n] * visible[n]
              end
            end
            seen / all
          end
        end

        # Does an aspect that the plant may well be in show a state?
        def shows?(plant, character, state)
          n = @chances.index(plant)
          all = joint.sum { |weights| weights[n] }
          @prior.parts.each_with_index.any? do |part, at|
            joint[at][n] >= LOOKS_SO * all &&
              (@chances.aspects.fetch(part.aspect).shares(character, plant)&.fetch(state) || 0) >= SHOWS
          end
        end

        private

        # For each part of the prior, the weights of every plant and stranger seen in that aspect.
        def joint = @joint ||= @prior.parts.map { |part| weigh(part) }

        def weigh(part)
          weights = [1 - @unlisted, @unlisted].flat_map { |share| part.weights.map { |weight| share * weight } }
          @seen.each { |key, state| times(weights, @chances.rows(key, part.aspect)[state]) }
          organs.each { |organ| times(weights, part.visible.fetch(organ)) }
          @absent.each do |key, states|
            states.each { |state| times(weights, @chances.rows(key, part.aspect)[state].map { |chance| 1 - chance }) }
          end
          weights
        end

        # A row of plants alone holds for their strangers, too. Counted by hand: the inner loop of every answer.
        def times(weights, row)
          size, all = row.size, weights.size
          at = 0
          while at < all
            n = 0
            while n < size
              weights[at + n] *= row[n]
              n += 1
            end
            at += size
          end
        end

        # Organs of which something was seen: each counts once, whatever was seen of it.
        def organs
          keys = @seen.keys + @absent.keys
          @organs ||= keys.map { |key| @chances.characters.fetch(key).shows }.uniq & Mixture::SHOWN_BY.keys
        end

        # What each aspect that counts has of some plants and strangers: [[aspect, its share of each]].
        def aspects(among)
          @aspects ||= begin
            sums = among.map { |n, _| joint.sum { |weights| weights[n] } }
            shares = joint.map { |weights| among.each_with_index.map { |(n, _), at| weights[n] / sums[at] } }
            @prior.parts.map(&:aspect).zip(shares).select { |_, share| share.max > FAINT }
          end
        end
      end
    end
  end
end
