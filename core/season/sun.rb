# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Sun and evapotranspiration after FAO Irrigation and Drainage Paper 56 (equations 21 to 34 and 52).
      module Sun
        module_function

        SOLAR_CONSTANT = 0.0820 # MJ m⁻² min⁻¹

        # Extraterrestrial radiation, MJ m⁻² d⁻¹, at latitude in degrees on day of year 1..366.
        def radiation(latitude, day_of_year)
          phi, delta, omega = angles(latitude, day_of_year)
          distance = 1 + (0.033 * Math.cos(2 * Math::PI * day_of_year / 365))
          24 * 60 / Math::PI * SOLAR_CONSTANT * distance *
            ((omega * Math.sin(phi) * Math.sin(delta)) + (Math.cos(phi) * Math.cos(delta) * Math.sin(omega)))
        end

        # Daylight, hours.
        def daylight(latitude, day_of_year) = 24 / Math::PI * angles(latitude, day_of_year).last

        # Reference evapotranspiration after Hargreaves, mm/d.
        def evapotranspiration(latitude, day_of_year, tmin, tmax)
          spread = [tmax - tmin, 0].max
          0.0023 * (((tmin + tmax) / 2.0) + 17.8) * Math.sqrt(spread) * radiation(latitude, day_of_year) * 0.408
        end

        def angles(latitude, day_of_year)
          phi = latitude * Math::PI / 180
          delta = 0.409 * Math.sin((2 * Math::PI * day_of_year / 365) - 1.39)
          [phi, delta, Math.acos((-Math.tan(phi) * Math.tan(delta)).clamp(-1, 1))]
        end
      end
    end
  end
end
