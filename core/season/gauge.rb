# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What a column of a weather file measures: the names that files use, the units it may come in, what can be true.
      # folds: how records of an hour or a day become one. plausible: in SI, per hour.
      Gauge = Value.define(:key, :label, :names, :units, :plausible, :folds)

      # The list of them, and what a header and its numbers suggest.
      class Gauge
        CELSIUS = { "°C" => ->(v) { v }, "°F" => ->(v) { (v - 32) / 1.8 }, "K" => ->(v) { v - 273.15 },
                    "0.1 °C" => ->(v) { v / 10 } }.freeze
        SPEED = { "km/h" => ->(v) { v }, "m/s" => ->(v) { v * 3.6 }, "mph" => ->(v) { v * 1.609344 },
                  "kn" => ->(v) { v * 1.852 }, "0.1 m/s" => ->(v) { v * 0.36 } }.freeze
        DEPTH = { "mm" => ->(v) { v }, "in" => ->(v) { v * 25.4 }, "cm" => ->(v) { v * 10 },
                  "0.1 mm" => ->(v) { v / 10 } }.freeze
        LIGHT = { "MJ/m²" => ->(v) { v }, "W/m²" => ->(v) { v * 0.0864 } }.freeze
        HEAT = -60.0..60.0

        FIELDS = %i[key label names units plausible folds].freeze
        # Names that columns go by in files of stations and of open services.
        NAMES = {
          time: "datetime date_time timestamp dateutc observed obs_time local_time valid time_utc",
          date: "date day datum obs_date mess_datum yyyymmdd date_utc",
          hour: "time hour hours clock",
          tmin: "tmin min_temp mintemp temp_min temperature_min low minimum_temperature tn tnk t2m_min " \
                "temperature_2m_min air_temperature_min minimum_air_temperature",
          tmax: "tmax max_temp maxtemp temp_max temperature_max high maximum_temperature tx txk t2m_max " \
                "temperature_2m_max air_temperature_max maximum_air_temperature",
          temperature: "temp temperature air_temp airtemp outdoor_temperature temp_out tavg tmean t t2m tm tmk tg " \
                       "temperature_2m temperature_2m_mean air_temperature",
          dew_point: "dew_point dewpoint dew dewpt td dew_point_2m t2mdew",
          humidity: "humidity rh relative_humidity hum out_hum outdoor_humidity rh2m upm relative_humidity_2m " \
                    "relative_humidity_2m_mean",
          rain: "rain precip precipitation prcp rainfall rain_total ppt daily_rain hourly_rain pcp " \
                "precipitation_sum rain_sum rsk rr prectotcorr rainfall_amount precipitation_amount",
          wind: "wind wind_speed windspeed ws wspd wind_avg awnd fm ff ws10m ws2m wind_speed_10m " \
                "wind_speed_10m_mean wind_speed_2m",
          gust: "gust wind_gust windgust gusts hi_speed max_wind wpgt fx wsfg wgst wind_gusts_10m " \
                "wind_gusts_10m_max",
          radiation: "radiation solar solar_rad srad solar_radiation rs shortwave_radiation " \
                     "shortwave_radiation_sum allsky_sfc_sw_dwn"
        }.transform_values(&:split).freeze
        ROWS = [
          [:time, "date and time", NAMES[:time], {}, nil, nil],
          [:date, "date", NAMES[:date], {}, nil, nil],
          [:hour, "time of day", NAMES[:hour], {}, nil, nil],
          [:tmin, "lowest temperature", NAMES[:tmin], CELSIUS, HEAT, :lowest],
          [:tmax, "highest temperature", NAMES[:tmax], CELSIUS, HEAT, :highest],
          [:temperature, "temperature", NAMES[:temperature], CELSIUS, HEAT, :mean],
          [:dew_point, "dew point", NAMES[:dew_point], CELSIUS, HEAT, :mean],
          [:humidity, "relative humidity", NAMES[:humidity], { "%" => ->(v) { v } }, 1.0..100.0, :mean],
          [:rain, "rain", NAMES[:rain], DEPTH, 0.0..300.0, :sum],
          [:wind, "wind", NAMES[:wind], SPEED, 0.0..200.0, :mean],
          [:gust, "gusts", NAMES[:gust], SPEED, 0.0..300.0, :highest],
          [:radiation, "sunshine, radiation", NAMES[:radiation], LIGHT, 0.0..120.0, :mean]
        ].freeze
        LIST = ROWS.map { |row| new(**FIELDS.zip(row).to_h) }.freeze
        BY_KEY = LIST.to_h { |gauge| [gauge.key, gauge] }.freeze

        # How units are written in headers.
        WRITTEN = { "°F" => /\bf\b|°f|deg_?f|fahrenheit/i, "°C" => /\bc\b|°c|deg_?c|celsius/i, "K" => /\bkelvin\b/i,
                    "in" => /\bin\b|inch/i,
                    "mm" => /\bmm\b/i, "cm" => /\bcm\b/i, "mph" => /mph/i, "m/s" => %r{m/s|\bms\b|mps|m_s}i,
                    "km/h" => %r{km/?h|kph|km_h}i,
                    "kn" => /\bkn\b|\bkts?\b|knots?/i, "W/m²" => %r{w/?m}i, "MJ/m²" => /mj/i }.freeze
        TENTH, TENTHS = "0.1 °C", 130.0 # no °F is above
        HOT = 50.0 # a file whose warmest twentieth is above this is in °F

        # What a column is, by its name: [Gauge or nil].
        def self.named(header)
          plain = header.to_s.downcase.gsub(/\(.*?\)|\[.*?\]|°[cf]/, "").strip.gsub(/[\s\-.]+/, "_")
          WRITTEN.each_value { |pattern| plain = plain.tr("_", " ").sub(/ (#{pattern.source})\z/i, "").tr(" ", "_") }
          plain = plain.gsub(/[^a-z0-9_]/, "").gsub(/\A_+|_+\z/, "")
          LIST.find { |gauge| gauge.names.include?(plain) || gauge.names.include?(plain.delete("_")) }
        end

        # The unit of a file's temperatures; found: {header => Gauge or nil}; numbers: -> (header) its numbers.
        def self.warm_unit(found, numbers)
          units = found.select { |_, gauge| gauge&.units == CELSIUS }
                       .map { |header, gauge| gauge.unit(header, numbers[header]).first }
          units.find { |unit| unit == TENTH } || units.first
        end

        # [unit, :header or :values or :assumed] of a column, from its header and its numbers.
        def unit(header, numbers, warm_unit: nil)
          written = units.keys.find { |unit| WRITTEN[unit]&.match?(header.to_s.tr("_", " ")) }
          return [written, :header] if written
          return [units.keys.first, :header] if units.size < 2
          return [units.keys.first, :assumed] if numbers.empty?

          by_values(numbers.sort, warm_unit)
        end

        def read(number, unit) = units.fetch(unit).call(number)

        private

        def by_values(sorted, warm_unit)
          high = Percentile.of(sorted, 0.95)
          case units
          when CELSIUS then [warm_unit == TENTH ? TENTH : warmth(sorted), :values]
          when DEPTH then depth(high, warm_unit)
          when SPEED then [speed(sorted, high, warm_unit), :values]
          else [high > 60 ? "W/m²" : "MJ/m²", :values]
          end
        end

        def depth(high, warm_unit)
          return ["0.1 mm", :values] if warm_unit == TENTH

          warm_unit == "°F" && high < 5 ? ["in", :values] : ["mm", :assumed]
        end

        # A spike of a sensor must not decide.
        def warmth(sorted)
          return "K" if Percentile.of(sorted, 0.05) > 200
          return TENTH if Percentile.of(sorted, 0.8) > TENTHS

          possible = sorted.select { |number| number < 150 }
          possible.any? && Percentile.of(possible, 0.95) > HOT ? "°F" : "°C"
        end

        def speed(sorted, high, warm_unit)
          return "mph" if warm_unit == "°F"
          return "0.1 m/s" if warm_unit == TENTH

          Percentile.of(sorted, 0.5) < 4 && high < 12 ? "m/s" : "km/h"
        end
      end
    end
  end
end
