# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What a place's year hangs on, as knowledge/climates.yml gives it.
      Climate = Value.define(:key, :label, :text, :anchors, :shown, :stands_for, :rains, :source) do
        def stands_for = self[:stands_for] || {}

        # The marks of its year: {key => AnchorKind}.
        def kinds = anchors.to_h { |key| [key.to_sym, Knowledge.shipped.anchors.fetch(key)] }
        # Does warmth alone bring spring, or do the rains?
        def warmth_driven? = !stands_for.key?("leaf_out")
        def rain_driven? = anchors.include?("first_rains")
      end

      # Which climate a year of usual weather is, by broad bounds (memory); a steward may say otherwise.
      class Climate
        Month = Value.define(:mean, :low, :rain)
        TROPICAL, COLD = 16.0, 2.0 # °C, mean of the coldest month
        FROSTY = 2.5 # °C, mean low of the coldest month: below, hard freezes come in most winters
        DRY_SHARE = 0.1 # of the year's rain in the driest three months
        DRY_SUMMER = 0.15 # of the year's rain in the three hottest
        DESERT_MM, HOT, SUMMER_SHARE = 450.0, 25.0, 0.25
        EVEN_SHARE = 0.13 # of the year's rain in the driest three months, where no season is dry

        # months: 12 of Month, from January.
        def self.of(months)
          coldest = months.min_by(&:mean)
          key = if coldest.mean >= TROPICAL then dry_share(months) < DRY_SHARE ? "wet_dry" : "mild"
                elsif desert?(months, coldest) then "desert"
                elsif winter_wet?(months, coldest) then "winter_wet"
                else coldest.low < FROSTY ? "frost" : "mild"
                end
          Knowledge.shipped.climates.fetch(key)
        end

        # Does one of them fit such a year? Not one that is dry all year with rain in no season, nor a mild one with a
        # dry winter.
        def self.fits?(months)
          case of(months).key
          when "mild" then dry_share(months) >= EVEN_SHARE && months.sum(&:rain) >= DESERT_MM
          when "frost" then months.map(&:mean).min < COLD || months.sum(&:rain) >= DESERT_MM
          else true
          end
        end

        # The months of a usual year of weather that is told as StandIns::WeatherStation takes it.
        def self.months(weather)
          coldest = weather["south"] ? 201 : 19
          Array.new(12) do |n|
            mean = weather["mean"] - (weather["swing"] * Math.cos(2 * Math::PI * ((30.4 * n) + 15 - coldest) / 365.25))
            Month.new(mean:, low: mean - (weather["range"] / 2.0), rain: weather["rain"][n])
          end
        end

        # Twelve months of mean °C and rain, mm, the coldest of them: hot, under DESERT_MM mm, with a summer share of
        # rain, and no winter that stops all growth?
        def self.desert?(months, coldest)
          hot = quarters(months).max_by { |three| three.sum(&:mean) }
          rain = months.sum(&:rain)
          coldest.mean >= COLD && rain < DESERT_MM && months.map(&:mean).max >= HOT &&
            hot.sum(&:rain) >= SUMMER_SHARE * rain
        end

        # Twelve months of mean °C and rain, mm, the coldest of them: mild, with a dry summer?
        def self.winter_wet?(months, coldest)
          hot = quarters(months).max_by { |three| three.sum(&:mean) }
          coldest.mean >= COLD && hot.sum(&:rain) < DRY_SUMMER * months.sum(&:rain)
        end

        def self.dry_share(months)
          quarters(months).map { |three| three.sum(&:rain) }.min / [months.sum(&:rain), 1.0].max
        end

        def self.quarters(months) = (0..11).map { |n| [n, n + 1, n + 2].map { |m| months[m % 12] } }
        private_class_method :desert?, :winter_wet?, :dry_share, :quarters
      end
    end
  end
end
