# frozen_string_literal: true

module Thistle
  module Web
    module Routes
      # What do the year and the weather allow?
      module Season
        def self.registered(app)
          app.get "/season" do
            here = property.live_patches.exclude(plant_key: nil).unordered.distinct.select_map(:plant_key)
            plants = (params["all"] ? knowledge.invaders : here.map { |key| knowledge.plant(key) }).sort_by(&:name)
            calendars = plants.to_h { |plant| [plant, Core::Season::Phenology.new(plant, site).spans(site.year)] }
            data = band.to_h.merge(plants: calendars.to_h { |plant, spans| [plant.key, Answers.phases(spans)] })
            show "season/index", data:, calendars:
          end

          app.get "/season/hours" do
            date = Date.iso8601(params["date"].to_s)
            hours = site.feed.hourly(date)
            show "season/hours", data: hours.map { |h|
              { at: h.at, temperature_c: h.temperature, rain_mm: h.rain, wind_km_h: h.wind, humidity_percent: h.humidity }
            },
                                 date:, hours:
          rescue Date::Error
            refuse 422, "That is not a date."
          end
        end
      end
    end
  end
end
