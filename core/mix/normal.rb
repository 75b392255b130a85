# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # The standard normal distribution.
      module Normal
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
      end
    end
  end
end
