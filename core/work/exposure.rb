# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # What heat and cold feel like to someone who works in them.
      module Exposure
        # What is said from a heat index on, °C, the mildest first (United States National Weather Service, recalled).
        HEAT = { 26.7 => "Caution: tiring. Drink before thirst, rest in the shade.",
                 32.2 => "Extreme caution: cramps and exhaustion are possible. Shorter spells, a buddy, more breaks.",
                 39.4 => "Danger: heat stroke is possible. Put it off to the morning or to another day.",
                 51.7 => "Extreme danger: nobody works in this." }.freeze
        # From a wind chill down, °C (planning values, memory).
        COLD = { 0.0 => "Cold: dry gloves and a second layer along.",
                 -18.0 => "Very cold: short spells, hands and faces looked at.",
                 -28.0 => "Skin freezes within half an hour: nobody works in this." }.freeze

        module_function

        # °C of air and % of humidity to °C felt (Rothfusz 1990 with its two corrections; below 80 °F the simple form).
        def heat_index(celsius, humidity)
          t, rh = (celsius * 1.8) + 32, humidity.to_f
          simple = 0.5 * (t + 61 + ((t - 68) * 1.2) + (rh * 0.094))
          felt = (simple + t) / 2 < 80 ? simple : rothfusz(t, rh) + correction(t, rh)
          (felt - 32) / 1.8
        end

        # °C of air and km/h of wind to °C felt (the formula of 2001); below 3 mph, all but still, that of the air; nil
        # above 50 °F, where it says nothing.
        def wind_chill(celsius, wind_km_h)
          t, v = (celsius * 1.8) + 32, wind_km_h / 1.609344
          return if t > 50
          return celsius if v < 3

          (35.74 + (0.6215 * t) - (35.75 * (v**0.16)) + (0.4275 * t * (v**0.16)) - 32) / 1.8
        end

        # [felt °C, sentence] of an hour or a day; nil where it is neither hot nor cold, or not known.
        def caution(celsius, humidity, wind_km_h)
          return unless celsius

          chill = wind_chill(celsius, wind_km_h.to_f) # where nobody knows the wind, the air at least is that cold
          felt = chill && said(chill) ? chill : warm(celsius, humidity)
          said(felt)&.then { |words| [felt, words] }
        end

        # What is said of °C felt; nil where it is neither hot nor cold.
        def said(felt)
          cold = COLD.select { |from, _| felt <= from }.min_by(&:first)
          hot = HEAT.select { |from, _| felt >= from }.max_by(&:first)
          (cold || hot)&.last
        end

        # °C of the wet-bulb globe in sun and light wind, estimated from °C of air and % of humidity:
        # 0.567 T + 0.393 e + 3.94, e in hPa (Australian Bureau of Meteorology, recalled).
        def wbgt(celsius, humidity)
          vapour = humidity / 100.0 * 6.105 * Math.exp(17.27 * celsius / (237.7 + celsius))
          (0.567 * celsius) + (0.393 * vapour) + 3.94
        end

        def warm(celsius, humidity) = humidity ? heat_index(celsius, humidity) : celsius

        def rothfusz(t, rh)
          -42.379 + (2.04901523 * t) + (10.14333127 * rh) - (0.22475541 * t * rh) - (0.00683783 * t * t) -
            (0.05481717 * rh * rh) + (0.00122874 * t * t * rh) + (0.00085282 * t * rh * rh) -
            (0.00000199 * t * t * rh * rh)
        end

        def correction(t, rh)
          if rh < 13 && t.between?(80, 112) then -((13 - rh) / 4) * Math.sqrt((17 - (t - 95).abs) / 17)
          elsif rh > 85 && t.between?(80, 87) then (rh - 85) / 10 * ((87 - t) / 5)
          else 0.0
          end
        end
        private_class_method :rothfusz, :correction, :warm
      end
    end
  end
end
