# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Moist air, °C and %.
      module Air
        module_function

        # Saturation vapour pressure, kPa (FAO 56, equation 11).
        def saturation(celsius) = 0.6108 * Math.exp(17.27 * celsius / (celsius + 237.3))

        # Dew point: the same equation turned round.
        def dew_point(celsius, humidity)
          k = Math.log([humidity, 1].max / 100.0) + (17.27 * celsius / (celsius + 237.3))
          237.3 * k / (17.27 - k)
        end

        # Relative humidity, %, of air that has that dew point.
        def humidity(celsius, dew_point) = (100 * saturation(dew_point) / saturation(celsius)).clamp(1, 100)

        # Wet-bulb temperature after Stull (2011), J. Appl. Meteor. Climatol. 50; good from 5 to 99 % and -20 to 50 °C.
        def wet_bulb(celsius, humidity)
          (celsius * Math.atan(0.151977 * Math.sqrt(humidity + 8.313659))) + Math.atan(celsius + humidity) -
            Math.atan(humidity - 1.676331) + (0.00391838 * (humidity**1.5) * Math.atan(0.023101 * humidity)) - 4.686035
        end

        # Dry bulb less wet bulb: how fast droplets dry up.
        def delta_t(celsius, humidity) = celsius - wet_bulb(celsius, humidity)
      end
    end
  end
end
