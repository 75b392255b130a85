# frozen_string_literal: true

require "rgeo"
require "rgeo/geo_json"

module Thistle
  module Core
    module Survey
      # The 180° meridian. Inside, a shape that crosses it runs on eastward past 180 (180.1 is 179.9° W), so that
      # boxes, planes and trees need no exception; RFC 7946 section 3.1.9 wants it cut in two on the way out.
      module Meridian
        module_function

        # The geometry with longitudes that run on; one that spans more than half the globe is taken to cross.
        def join(geometry)
          east, west = longitudes(geometry["coordinates"]).minmax
          return geometry unless east && west - east > 180

          east = shift(geometry["coordinates"]) { |lon| lon.negative? ? lon + 360 : lon }
          whole(geometry.merge("coordinates" => east))
        end

        # The geometry within ±180, cut at the meridian where it crosses.
        def cut(geometry)
          low, high = longitudes(geometry["coordinates"]).minmax
          return geometry if high <= 180
          return geometry.merge("coordinates" => shift(geometry["coordinates"]) { |lon| lon - 360 }) if low >= 180

          feature = RGeo::GeoJSON.decode(geometry, geo_factory: FLAT)
          halves = [[-360, 180, 0], [180, 540, -360]].map { |from, to, by| half(feature, from, to, by) }
          gather(geometry["type"].delete_prefix("Multi"), halves)
        end

        # Boxes [west, south, east, north] within which to look for what a view shows: its own, and a turn further
        # where shapes run on past the meridian.
        def boxes(bounds)
          west, south, east, north = bounds
          return [bounds] unless west < -175 || east > 175

          [bounds, [west + 360, south, east + 360, north], [west - 360, south, east - 360, north]]
        end

        FLAT = RGeo::Geos.factory(srid: 0)

        # Halves that meet at the meridian are one again.
        def whole(geometry)
          return geometry unless geometry["type"] == "MultiPolygon"

          parts = RGeo::GeoJSON.decode(geometry, geo_factory: FLAT)
          parts.valid? ? geometry : RGeo::GeoJSON.encode(FLAT.collection(parts.to_a).unary_union)
        end

        def half(feature, from, to, by)
          corners = [[from, -90], [to, -90], [to, 90], [from, 90]].map { |x, y| FLAT.point(x, y) }
          box = FLAT.polygon(FLAT.linear_ring(corners))
          part = RGeo::GeoJSON.encode(feature.intersection(box))
          part.merge("coordinates" => shift(part["coordinates"]) { |lon| lon + by })
        end

        def gather(kind, halves)
          parts = halves.flat_map do |half|
            half["type"].start_with?("Multi") ? half["coordinates"] : [half["coordinates"]]
          end
          { "type" => "Multi#{kind}", "coordinates" => parts }
        end

        def longitudes(list) = list.first.is_a?(Array) ? list.flat_map { |item| longitudes(item) } : list.first(1)

        def shift(list, &block)
          return list.map { |item| shift(item, &block) } if list.first.is_a?(Array)

          [yield(list[0]), *list[1..]]
        end
        private_class_method :whole, :half, :gather, :longitudes, :shift
      end
    end
  end
end
