# frozen_string_literal: true

module Thistle
  module Core
    # The standard normal distribution.
    module Normal
      Z80 = 1.2815515655446004 # 80 of a hundred lie within, 10 beyond on either side: planning values say such ranges
      Z90 = 1.6448536269514722 # 90 within
      Z95 = 1.959963984540054 # 95 within

      module_function

      # P(Z <= z).
      def cumulative(number) = 0.5 * Math.erfc(-number / Math.sqrt(2))

      # z with P(Z <= z) = share, by bisection.
      def quantile(share)
        low, high = -9.0, 9.0
        70.times do
          middle = (low + high) / 2
          cumulative(middle) < share ? low = middle : high = middle
        end
        (low + high) / 2
      end

      # A number drawn by Box and Muller (1958) from a Random.
      def draw(random) = Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand)
    end
  end
end
