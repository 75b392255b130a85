# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Sun and evapotranspiration after FAO Irrigation and Drainage Paper 56: equations 21 to 34 (sun), 52
      # (Hargreaves), 6 (Penman–Monteith). Rising and setting: the low-precision solar position of Meeus, Astronomical
      # Algorithms, chapter 25 (recalled), with the usual 0.833° for refraction and the sun's disc.
      module Sun
        module_function

        SOLAR_CONSTANT = 0.0820 # MJ m⁻² min⁻¹
        STEFAN_BOLTZMANN = 4.903e-9 # MJ K⁻⁴ m⁻² d⁻¹
        HORIZON = -0.833 # degrees
        WIND_AT_2M = 0.748 # of the wind at 10 m, where stations measure it (equation 47)
        RADIANS = Math::PI / 180
        J2000 = 2_451_545.0

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
          hargreaves(radiation(latitude, day_of_year), tmin, tmax)
        end

        # Reference evapotranspiration, mm a day, of extraterrestrial radiation, MJ/m², and °C (FAO 56, equation 52,
        # recalled).
        def hargreaves(outer, tmin, tmax)
          [0.0023 * (((tmin + tmax) / 2.0) + 17.8) * Math.sqrt([tmax - tmin, 0].max) * outer * 0.408, 0].max
        end

        # Reference evapotranspiration after Penman–Monteith, mm/d. outer: extraterrestrial radiation; wind in km/h at
        # 10 m; humidity the day's mean, %; radiation measured at the ground, MJ m⁻² d⁻¹, else taken from the spread of
        # temperature (equation 50); elevation in metres.
        def penman_monteith(outer, tmin:, tmax:, wind:, humidity:, radiation: nil, elevation: 0.0)
          mean = (tmin + tmax) / 2.0
          saturated = (Air.saturation(tmin) + Air.saturation(tmax)) / 2
          vapour = humidity / 100.0 * saturated
          clear = (0.75 + (2e-5 * elevation)) * outer
          shortwave = [radiation || (0.16 * Math.sqrt([tmax - tmin, 0].max) * outer), clear].min
          net = (0.77 * shortwave) - longwave(tmin, tmax, vapour, clear.positive? ? shortwave / clear : 1.0)
          combine(mean, net, wind, saturated - vapour, elevation)
        end

        # Equation 6 from the net radiation and the want of vapour, kPa.
        def combine(mean, net, wind, want, elevation)
          slope = 4098 * Air.saturation(mean) / ((mean + 237.3)**2)
          gamma = 0.000665 * 101.3 * (((293 - (0.0065 * elevation)) / 293)**5.26)
          breeze = wind / 3.6 * WIND_AT_2M
          driven = (0.408 * slope * net) + (gamma * 900 / (mean + 273) * breeze * want)
          [driven / (slope + (gamma * (1 + (0.34 * breeze)))), 0].max
        end

        # Equation 39.
        def longwave(tmin, tmax, vapour, clearness)
          STEFAN_BOLTZMANN * ((((tmax + 273.16)**4) + ((tmin + 273.16)**4)) / 2) * (0.34 - (0.14 * Math.sqrt(vapour))) *
            ((1.35 * clearness) - 0.35)
        end

        # [rising, setting] on a day at a place, as UTC Time; nil where the sun does not cross the horizon.
        def rise_and_set(date, latitude, longitude)
          [-1, 1].map { |side| crossing(date, latitude, longitude, side) }
        end

        # The Time, UTC, at which the sun crosses the horizon on a side (-1 rises, 1 sets); nil where it does not.
        def crossing(date, latitude, longitude, side)
          day = date.jd - (longitude / 360.0) # julian days at local noon
          2.times do
            declination, equation = position(day)
            noon = date.jd - (longitude / 360.0) - (equation / 1440.0)
            cosine = (Math.sin(HORIZON * RADIANS) - (Math.sin(latitude * RADIANS) * Math.sin(declination))) /
                     (Math.cos(latitude * RADIANS) * Math.cos(declination))
            return if cosine.abs > 1

            day = noon + (side * Math.acos(cosine) / (2 * Math::PI))
          end
          Time.at(((day - 2_440_587.5) * 86_400).round).utc
        end

        # Degrees of the sun above the horizon on a day at a latitude, so many hours from noon by the sun.
        def height(date, latitude, from_noon)
          declination, = position(date.jd)
          phi, angle = latitude * RADIANS, from_noon * 15 * RADIANS
          Math.asin((Math.sin(phi) * Math.sin(declination)) +
                    (Math.cos(phi) * Math.cos(declination) * Math.cos(angle))) / RADIANS
        end

        # Declination in radians and the equation of time in minutes on a julian day.
        def position(julian)
          t = (julian - J2000) / 36_525
          mean_longitude = (280.46646 + (36_000.76983 * t)) * RADIANS
          anomaly = (357.52911 + (35_999.05029 * t)) * RADIANS
          centre = ((1.914602 - (0.004817 * t)) * Math.sin(anomaly)) + (0.019993 * Math.sin(2 * anomaly)) +
                   (0.000289 * Math.sin(3 * anomaly))
          longitude = mean_longitude + (centre * RADIANS)
          tilt = (23.439291 - (0.0130042 * t)) * RADIANS
          ascension = Math.atan2(Math.cos(tilt) * Math.sin(longitude), Math.cos(longitude))
          [Math.asin(Math.sin(tilt) * Math.sin(longitude)),
           half_turn(mean_longitude - (0.0057183 * RADIANS) - ascension) / RADIANS * 4]
        end

        # The same angle between minus and plus half a turn.
        def half_turn(angle) = angle - (2 * Math::PI * (angle / (2 * Math::PI)).round)

        # [latitude, declination, sunset hour angle] in radians (FAO 56, equations 22 to 25, recalled).
        def angles(latitude, day_of_year)
          phi = latitude * Math::PI / 180
          delta = 0.409 * Math.sin((2 * Math::PI * day_of_year / 365) - 1.39)
          [phi, delta, Math.acos((-Math.tan(phi) * Math.tan(delta)).clamp(-1, 1))]
        end
      end
    end
  end
end
