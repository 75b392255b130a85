# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What a column of a weather file measures: the names that files use, the units it may come in, what can be true.
      # folds: how records of an hour or a day become one. plausible: in SI, per hour.
      Gauge = Value.define(:key, :label, :names, :units, :plausible, :folds)

      # The list of them, and what a header and its numbers suggest.
      class Gauge
        CELSIUS = { "°C" => ->(v) { v }, "°F" => ->(v) { (v - 32) / 1.8 }, "K" => ->(v) { v - 273.15 } }.freeze
        SPEED = { "km/h" => ->(v) { v }, "m/s" => ->(v) { v * 3.6 }, "mph" => ->(v) { v * 1.609344 },
                  "kn" => ->(v) { v * 1.852 } }.freeze
        DEPTH = { "mm" => ->(v) { v }, "in" => ->(v) { v * 25.4 }, "cm" => ->(v) { v * 10 } }.freeze
        HEAT = -60.0..60.0

        FIELDS = %i[key label names units plausible folds].freeze
        ROWS = [
          [:time, "date and time", %w[datetime date_time timestamp dateutc observed obs_time local_time valid], {}, nil,
           nil],
          [:date, "date", %w[date day datum obs_date], {}, nil, nil],
          [:hour, "time of day", %w[time hour hours clock], {}, nil, nil],
          [:tmin, "lowest temperature", %w[tmin min_temp mintemp temp_min temperature_min low minimum_temperature],
           CELSIUS, HEAT, :lowest],
          [:tmax, "highest temperature", %w[tmax max_temp maxtemp temp_max temperature_max high maximum_temperature],
           CELSIUS, HEAT, :highest],
          [:temperature, "temperature", %w[temp temperature air_temp airtemp outdoor_temperature temp_out tavg tmean t],
           CELSIUS, HEAT, :mean],
          [:dew_point, "dew point", %w[dew_point dewpoint dew dewpt td], CELSIUS, HEAT, :mean],
          [:humidity, "relative humidity", %w[humidity rh relative_humidity hum out_hum outdoor_humidity],
           { "%" => ->(v) { v } }, 1.0..100.0, :mean],
          [:rain, "rain", %w[rain precip precipitation prcp rainfall rain_total ppt daily_rain hourly_rain], DEPTH,
           0.0..300.0, :sum],
          [:wind, "wind", %w[wind wind_speed windspeed ws wspd wind_avg], SPEED, 0.0..200.0, :mean],
          [:gust, "gusts", %w[gust wind_gust windgust gusts hi_speed max_wind], SPEED, 0.0..300.0, :highest],
          [:radiation, "sunshine, radiation", %w[radiation solar solar_rad srad solar_radiation rs],
           { "MJ/m²" => ->(v) { v }, "W/m²" => ->(v) { v * 0.0864 } }, 0.0..120.0, :mean]
        ].freeze
        LIST = ROWS.map { |row| new(**FIELDS.zip(row).to_h) }.freeze
        BY_KEY = LIST.to_h { |gauge| [gauge.key, gauge] }.freeze

        # How units are written in headers.
        WRITTEN = { "°F" => /\bf\b|°f|deg_?f|fahrenheit/i, "°C" => /\bc\b|°c|deg_?c|celsius/i, "K" => /\bkelvin\b/i,
                    "in" => /\bin\b|inch/i,
                    "mm" => /\bmm\b/i, "cm" => /\bcm\b/i, "mph" => /mph/i, "m/s" => %r{m/s|\bms\b|mps|m_s}i,
                    "km/h" => %r{km/?h|kph|km_h}i,
                    "kn" => /\bkn\b|\bkts?\b|knots?/i, "W/m²" => %r{w/?m}i, "MJ/m²" => /mj/i }.freeze
        HOT = 50.0 # a file whose warmest twentieth is above this is in °F

        # What a column is, by its name: [Gauge or nil].
        def self.named(header)
          plain = header.to_s.downcase.gsub(/\(.*?\)|\[.*?\]|°[cf]/, "").strip.gsub(/[\s\-.]+/, "_")
          WRITTEN.each_value { |pattern| plain = plain.tr("_", " ").sub(/ (#{pattern.source})\z/i, "").tr(" ", "_") }
          plain = plain.gsub(/[^a-z0-9_]/, "").gsub(/\A_+|_+\z/, "")
          LIST.find { |gauge| gauge.names.include?(plain) || gauge.names.include?(plain.delete("_")) }
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
          when CELSIUS then [warmth(sorted), :values]
          when DEPTH then warm_unit == "°F" && high < 5 ? ["in", :values] : ["mm", :assumed]
          when SPEED then [speed(sorted, high, warm_unit), :values]
          else [high > 60 ? "W/m²" : "MJ/m²", :values]
          end
        end

        # A spike of a sensor must not decide.
        def warmth(sorted)
          return "K" if Percentile.of(sorted, 0.5) > 200

          possible = sorted.select { |number| number < 150 }
          possible.any? && Percentile.of(possible, 0.95) > HOT ? "°F" : "°C"
        end

        def speed(sorted, high, warm_unit)
          return "mph" if warm_unit == "°F"

          Percentile.of(sorted, 0.5) < 4 && high < 12 ? "m/s" : "km/h"
        end
      end
    end
  end
end
