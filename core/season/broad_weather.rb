# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Weather where none was measured: of the places around that are well known (Normals), else of the region or the
      # climate (knowledge/broad_weather.yml), on the right side of the equator.
      module BroadWeather
        WEATHER = %w[mean swing range wind wet_days rain].freeze
        HALF_YEAR = 6

        module_function

        # The row of a climate that a steward names, else of the region, else of the frost climate.
        def row(region: nil, climate: nil)
          rows = Knowledge.shipped.broad_weather
          rows[climate] || rows[region] || rows.fetch("frost")
        end

        # [latitude, longitude] that stand for ground without a position.
        def middle(**of) = row(**of).values_at("latitude", "longitude")

        # What a station of such weather has at a place: `around`, what Normals#at takes besides latitude and longitude.
        def at(latitude, longitude, region: nil, climate: nil, **around)
          Normals.shipped.at(latitude, longitude, **around) || climate(latitude, region:, climate:)
        end

        # The same of a region or a climate alone: months turned by half a year where the row lies on the other side of
        # the equator.
        def climate(latitude, **of)
          row = row(**of)
          south = latitude.negative?
          turned = south == row["latitude"].negative? ? row : turn(row)
          { **turned.slice(*WEATHER), "south" => south }
        end

        def turn(row) = row.to_h { |key, value| [key, value.is_a?(Array) ? value.rotate(HALF_YEAR) : value] }
        private_class_method :turn
      end
    end
  end
end
