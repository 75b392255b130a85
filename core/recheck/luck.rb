# frozen_string_literal: true

require "numo/narray"

module Thistle
  module Core
    module Recheck
      # The luck of many futures in one year: whole counts drawn about what is to be expected. The same seed, count and
      # year give the same, in the same order of asking.
      class Luck
        D = Numo::DFloat
        USES = 30 # draws that a year with two visits takes

        # known: {} that keeps the draws by count and year, so that strategies that are compared have the same luck.
        def initialize(seed, count, year, known)
          @z = known[[count, year]] ||= begin
            draws = Draws.normal((seed * 1000) + year, USES * count).reshape(USES, count)
            Array.new(USES) { |n| draws[n, true].dup }
          end
          @use = -1
        end

        # How many of a count, each with a chance: near enough a binomial, whole.
        def part(of, chance)
          return unused(of) if of.max.zero?

          mean = of * chance
          variance = mean * chance
          D.minimum(whole(mean, mean - variance), of)
        end

        def counted(mean) = mean.max.zero? ? unused(mean) : whole(mean, mean.dup)

        # None of none; the draws that it would have taken stay unused, so that others have the same luck.
        def unused(none)
          @use = (@use + 1) % USES
          D.zeros(none.size)
        end

        private

        # Whole numbers about a mean; where it is few, none or one. Works in place: to make an array costs more than to
        # fill it. (Takes both arrays.)
        def whole(mean, variance)
          @use = (@use + 1) % USES
          few = mean.lt(0.5).where
          alone = one(mean[few], @z[@use][few]) if few.size.positive?
          found = Numo::NMath.sqrt(variance.inplace).inplace
          found = (found * @z[@use]) + mean + 0.5
          found = found.floor.clip(0.0, nil)
          found[few] = alone if alone
          found
        end

        # One where 1 - exp(-mean) is above a number from 0 to 1, taken from the far digits of the normals.
        def one(mean, normals)
          far = normals * 1e5
          chance = 1 - Numo::NMath.exp((-mean).inplace)
          (chance - far + far.floor).ceil
        end
      end
    end
  end
end
