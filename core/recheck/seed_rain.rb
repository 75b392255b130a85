# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Where seed of a plant lands: most under it, the rest by the ways that carry it, each thinner the farther
      # (two-sided exponential on the plane, by its mean distance).
      class SeedRain
        NEAR = 0.9 # of the seed that falls where nothing carries it (memory)
        LEAST_M = 1.0

        # stages: of the plant, which knows the ways (Stages#carried).
        def initialize(stages)
          falling, *ways = stages.carried.map { |range| [range["likely"], 0.1].max }
          @shares = ways.empty? ? [[falling, 1.0]] : [[falling, NEAR], *ways.map { |m| [m, (1 - NEAR) / ways.size] }]
        end

        # Of the seed of one plant, how much lands on a square metre so many metres away.
        def density(metres)
          @shares.sum do |mean, share|
            scale = mean / 2.0
            share * Math.exp(-[metres, LEAST_M].max / scale) / (2 * Math::PI * (scale**2))
          end
        end

        # As the seed of how many plants that stand here: [[plants, metres away]] around a ground of so many m².
        def worth(around, m2) = around.sum { |plants, metres| plants * [density(metres) * m2, 1.0].min }
      end
    end
  end
end
