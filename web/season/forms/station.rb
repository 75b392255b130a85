# frozen_string_literal: true

module Thistle
  module Web
    module Season
      module Forms
        # Where a property's weather comes from, and what else its year rests on.
        class Station < Form
          class Fields < Form::Contract
            params do
              required(:feed).filled(:string, included_in?: Store::Property::FEEDS.keys)
              required(:texture).filled(:string, included_in?: Core::Knowledge.shipped.soils.keys)
              optional(:climate_kind).filled(:string, included_in?: Core::Knowledge.shipped.climates.keys)
              optional(:timezone).filled(:string)
              optional(:elevation).filled(:float, gteq?: -450, lteq?: 30_000)
              optional(:station_name).filled(:string, max_size?: 80)
              optional(:station_latitude).filled(:float, gteq?: -90, lteq?: 90)
              optional(:station_longitude).filled(:float, gteq?: -180, lteq?: 180)
              optional(:station_elevation).filled(:float, gteq?: -450, lteq?: 30_000)
            end
            rule(:timezone).validate(:clock)
            rule(:station_latitude, :station_longitude).validate(:both_or_neither)
          end

          def self.of(property, units, today)
            typed = property.values.slice(:feed, :texture, :climate_kind, :timezone, :station_name, :station_latitude,
                                          :station_longitude)
            heights = { elevation: property.elevation_m, station_elevation: property.station_elevation_m }
                      .transform_values { |m| units.from_si(:length, m)&.round }
            new(typed.merge(heights).compact.transform_values(&:to_s), units:, today:)
          end

          def store(property)
            return unless ok?
            if values[:feed] == "own" && property.weather_files.none?(&:taken?)
              return failed(:feed, "has no days yet: bring a file first") && nil
            end

            none = { climate_kind: nil, timezone: nil, station_name: nil, station_latitude: nil,
                     station_longitude: nil }
            heights = { elevation_m: si(:elevation, :length), station_elevation_m: si(:station_elevation, :length) }
            property.update(**none, **values.except(:elevation, :station_elevation), **heights)
            property.year_changed
            true
          end
        end
      end
    end
  end
end
