# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What a kind of work asks of an hour or a day (knowledge/fits.yml); a product's label goes before it.
      Limits = Value.of(work: %i[key label short tags cautions source labelled],
                        air: %i[wind gust temperature delta_t still_air daylight],
                        wet: %i[soil rainfast_h dry_h calm_water])

      # Which are a method's, what a label changes, and what stands against a whole day.
      class Limits
        OWN = %i[basal water digging].freeze # that go before what else a method is
        WET_DAY = 1.0 # mm from which a day counts as rainy

        # Those of a method; nil for work that any day will do for.
        def self.of(removal)
          (@of ||= {}).fetch(removal) do
            kinds = Knowledge.shipped.fits.values.select { |limits| removal.is?(*limits.tags.map(&:to_sym)) }
            # Bark is stem work too and asks for more; in the water the soil does not count; a lever serves on dry soil.
            kind = kinds.max_by { |limits| OWN.include?(limits.key) ? 1 : 0 }
            @of[removal] = kind&.with(**removal.limits)
          end
        end

        def herbicide? = !rainfast_h.nil?

        # With what a label says: {wind_low:, wind_high:, gust:, rainfast_h:, temperature_low:, temperature_high:}, nils
        # left out.
        def under(label)
          return self if label.nil? || label.empty?

          with(wind: range(wind, label, :wind), temperature: range(temperature, label, :temperature),
               gust: label[:gust] || gust,
               rainfast_h: label[:rainfast_h] || rainfast_h, labelled: true)
        end

        # The same whatever the soil.
        def on_any_soil = with(soil: Soil::CLASSES.map(&:to_s))

        # What stands against the weather of a whole day, as far as it is known: [:soil, :wind, :temperature, :rain].
        # rain_after: the next day's, mm.
        def against(day, soil, rain_after)
          found = []
          found << :soil unless self.soil.include?(soil.to_s)
          found << :wind if wind && !within?(wind, day.wind)
          found << :temperature unless within?(temperature, day.tmax)
          found << :rain if (herbicide? || calm_water) && rainy?(day.rain, herbicide? ? rain_after : 0)
          found
        end

        # The same as [Fit::Against], whatever the soil.
        def of_day(day, rain_after)
          told = { wind: [day.wind, wind], temperature: [day.tmax, temperature], rain: [day.rain, WET_DAY] }
          on_any_soil.against(day, "moist", rain_after).map do |key|
            value, limit = told.fetch(key)
            Fit::Against.new(key: key == :rain ? :raining : key, value:, limit:, unknown: value.nil?)
          end
        end

        def fit_day?(day, soil, rain_after) = against(day, soil, rain_after).empty?

        private

        # What was not measured is not within.
        def within?(range, value) = !value.nil? && value.between?(range["low"], range["high"])
        def rainy?(rain, after) = rain.nil? || rain + (after || 0) >= WET_DAY

        def range(own, label, name)
          low, high = label.values_at(:"#{name}_low", :"#{name}_high")
          return own unless low || high

          { "low" => low || own&.fetch("low") || 0, "high" => high || own&.fetch("high") || Float::INFINITY }
        end
      end
    end
  end
end
