# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Warmth of a day above a base, in degree days (°C).
      module DegreeDays
        module_function

        # Mean of low and high.
        def simple(tmin, tmax, base) = [((tmin + tmax) / 2.0) - base, 0].max

        # Single sine after Baskerville and Emin (1969): the day's wave above the base.
        def sine(tmin, tmax, base)
          return simple(tmin, tmax, base) if tmin >= base
          return 0.0 if tmax <= base

          mean, half = (tmin + tmax) / 2.0, (tmax - tmin) / 2.0
          angle = Math.asin((base - mean) / half)
          (((mean - base) * ((Math::PI / 2) - angle)) + (half * Math.cos(angle))) / Math::PI
        end
      end
    end
  end
end
