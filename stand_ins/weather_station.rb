# frozen_string_literal: true

require "date"

module Thistle
  module StandIns
    # A simulated weather station: the same seed and climate always give the same weather, whatever part of it
    # is asked for. It answers what any feed answers (Core::Season::Day): daily, hourly, station.
    #
    # climate: { "mean" => °C over the year, "swing" => half the summer-winter difference, "range" => °C between
    # night and day, "rain" => [12 monthly totals, mm], "wind" => km/h, "wet_days" => share of days with rain, or 12 of
    # them, "south" => true below the equator }
    class WeatherStation
      SPREAD = 4.0        # °C, day to day
      MEMORY = 6          # days over which weather hangs together
      Day = Core::Season::Day
      Hour = Core::Season::Hour

      attr_reader :climate, :station

      # station: where it stands (Core::Season::Station), nil for here; standing: of its days.
      def initialize(seed:, climate:, station: nil, standing: :measured)
        @seed, @climate, @station, @standing = seed, climate, station, standing
        @days = MADE.fetch([seed, climate, standing]) { {} }
      end

      # Days are slow to make and always the same: stations alike share them.
      MADE = Core::Kept.new(8)

      # Array of Day for a range of dates.
      def daily(range) = range.map { |date| day(date) }

      # 24 Hours of a date: warmest at three, most wind after noon, rain in one spell.
      def hourly(date)
        today = day(date)
        wet_from = (noise(date, 7).abs * 100).to_i % 18
        (0..23).map do |at|
          warmth = (1 + Math.cos((at - 15) * Math::PI / 12)) / 2
          temperature = today.tmin + ((today.tmax - today.tmin) * warmth)
          Hour.new(at:, temperature: temperature.round(1), wind: (today.wind * (0.55 + (0.9 * warmth))).round(1),
                   standing: @standing, rain: at.between?(wet_from, wet_from + 4) ? (today.rain / 5).round(2) : 0.0,
                   humidity: (today.humidity + (18 * (0.5 - warmth))).clamp(15, 100).round)
        end
      end

      private

      def day(date) = @days[date.jd] ||= make(date)

      def make(date)
        rain = rain(date)
        middle = season_mean(date) + (SPREAD * drift(date, 1)) - (rain.positive? ? 1.0 : 0)
        half = climate["range"] / 2.0 * (rain.positive? ? 0.65 : 1.08)
        Day.new(date:, tmin: (middle - half).round(1), tmax: (middle + half).round(1), rain:,
                wind: (climate["wind"] * Math.exp(0.35 * drift(date, 3))).round(1),
                humidity: (62 + (rain.positive? ? 18 : 0) + (7 * drift(date, 4))).clamp(20, 100).round,
                standing: @standing)
      end

      def season_mean(date)
        coldest = climate["south"] ? 201 : 19
        climate["mean"] - (climate["swing"] * Math.cos(2 * Math::PI * (date.yday - coldest) / 365.25))
      end

      def rain(date)
        share = Array(climate["wet_days"]).then { |shares| shares[(date.month - 1) % shares.size] }
        # A smoothed wave makes wet spells; the share of days above the bar stays as set.
        return 0.0 unless uniform_of(drift(date, 2)) < share

        monthly = climate["rain"][date.month - 1]
        (-Math.log(1 - uniform(date, 5)) * monthly / (30.4 * share)).round(1)
      end

      # Standard normal noise that hangs together over some days.
      def drift(date, channel)
        weights = (0...MEMORY).map { |n| 0.62**n }
        sum = weights.each_with_index.sum { |weight, n| weight * noise(date - n, channel) }
        sum / Math.sqrt(weights.sum { |w| w * w })
      end

      def noise(date, channel)
        Math.sqrt(-2 * Math.log(1 - uniform(date, channel))) * Math.cos(2 * Math::PI * uniform(date, channel + 50))
      end

      def uniform_of(normal) = 0.5 * (1 + Math.erf(normal / Math.sqrt(2)))

      # A number in [0, 1) from seed, date and channel: one round of 64-bit mixing (splitmix).
      def uniform(date, channel)
        z = (((@seed * 1_000_003) + (date.jd * 131) + channel) * 0x9E3779B97F4A7C15) & 0xFFFFFFFFFFFFFFFF
        z = ((z ^ (z >> 30)) * 0xBF58476D1CE4E5B9) & 0xFFFFFFFFFFFFFFFF
        z = ((z ^ (z >> 27)) * 0x94D049BB133111EB) & 0xFFFFFFFFFFFFFFFF
        (z ^ (z >> 31)) / 18_446_744_073_709_551_616.0
      end
    end
  end
end
