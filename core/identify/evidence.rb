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

        # What to expect of a character over some plants and strangers (their numbers, and what each weighs):
        # {state => [its chance m, the mean of c log2 c]}, c being its chance in each.
        def expect(character, among, weights)
          parts = together(character, aspects(among))
          states = parts.first.first.keys
          rows = states.map { |state| parts.map { |looks, _| looks[state].values_at(*among) } }
          states.zip(means(rows, parts.map(&:last), weights)).to_h
        end

        # What would lead, were one more answer given: {state => [the number of a plant, its chance]}.
        def leads(character, states)
          shows = @chances.characters.fetch(character).shows
          seen = shows unless organs.include?(shows) || !Mixture::SHOWN_BY.key?(shows)
          parts = together(character, by_aspect(seen))
          states.to_h { |state| [state, lead(parts.map { |rows, sums| [rows[state], sums] })] }
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

        # [[aspect, weights]] of every plant and stranger, an organ seen as well.
        def by_aspect(organ)
          (@by_aspect ||= {})[organ] ||= @prior.parts.zip(joint).map do |part, weights|
            weights = weights.dup.tap { |all| times(all, part.visible.fetch(organ)) } if organ
            [part.aspect, weights]
          end
        end

        # Aspects that look alike in a character, their weights added up: [[rows, weights]].
        def together(character, weighed)
          alike = weighed.group_by { |aspect, _| @chances.rows(character, aspect).object_id }.values
          alike.map { |some| [@chances.rows(character, some.first.first), added(some.map(&:last))] }
        end

        # Rows added up, each sum worked out once.
        def added(rows)
          return rows.first if rows.one?

          (@added ||= {})[rows.map(&:object_id)] ||= rows.transpose.map(&:sum)
        end

        # Of each state, from its rows: what to expect of it. A phone has another way to the same sums (pocket/sums.rb).
        def means(states, shares, weights) = states.map { |rows| mean(rows, shares, weights) }

        def mean(rows, shares, weights)
          m = mean = 0.0
          at = 0
          while at < weights.size
            c = of = 0
            while of < rows.size
              c += rows[of][at] * shares[of][at]
              of += 1
            end
            part = weights[at] * c
            m += part
            mean += part * Math.log2(c)
            at += 1
          end
          [m, mean]
        end

        # The likeliest plant, alike ones by name, and its chance among all plants and strangers.
        def lead(parts)
          sums = parts.map { |row, weights| row.zip(weights).map { |chance, weight| chance * weight } }
          sums = sums.one? ? sums.first : sums.transpose.map(&:sum)
          plants = sums.first(@chances.plants.size)
          most = plants.max
          found = plants.count(most) == 1 ? plants.index(most) : named_first(plants, most)
          [found, most / sums.sum]
        end

        def named_first(plants, most)
          plants.each_index.select { |n| plants[n] == most }.min_by { |n| @chances.plants[n].name }
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

        # What each aspect that counts has of some plants and strangers: [[aspect, its share of each]]; shares of a
        # plant add up to 1.
        def aspects(among)
          @aspects ||= begin
            some = @prior.parts.zip(joint).map { |part, weights| [part.aspect, weights.values_at(*among)] }
            faint = shared(some).map { |_, shares| shares.max <= FAINT }
            shared(some.reject.with_index { |_, at| faint[at] })
          end
        end

        def shared(weighed)
          sums = weighed.map(&:last).transpose.map(&:sum)
          weighed.map { |aspect, weights| [aspect, weights.zip(sums).map { |weight, sum| weight / sum }] }
        end
      end
    end
  end
end
