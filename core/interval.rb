# frozen_string_literal: true

module Thistle
  module Core
    # The one interval in which a counted share is told: Wilson's (1927), 95 %.
    module Interval
      Z = Normal::Z95
      LABEL = "95 %, Wilson"
      SOURCE = "wilson_1927"

      module_function

      # [low, high] of a share of which count of all were so; all is above 0. Numbers may be weighted ones.
      def wilson(count, all)
        share, squared = count.fdiv(all), (Z**2) / all
        middle = (share + (squared / 2)) / (1 + squared)
        half = Z * Math.sqrt((share * (1 - share) / all) + (squared / (4 * all))) / (1 + squared)
        [[middle - half, 0.0].max, [middle + half, 1.0].min]
      end
    end
  end
end
