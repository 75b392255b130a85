# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # A GeoJSON geometry as well-known binary (OGC), the quick way into GEOS. Little-endian, two dimensions.
      module Wkb
        TYPES = { "Point" => 1, "LineString" => 2, "Polygon" => 3, "MultiPoint" => 4, "MultiLineString" => 5,
                  "MultiPolygon" => 6 }.freeze

        module_function

        # Well-known binary, little-endian, of a GeoJSON type and its coordinates. Raises KeyError for another type.
        def write(type, coordinates)
          head = [1, TYPES.fetch(type)].pack("CL<")
          case type
          when "Point" then head << coordinates.pack("E2")
          when "LineString" then head << line(coordinates)
          when "Polygon" then head << [coordinates.size].pack("L<") << coordinates.map { |ring| line(ring) }.join
          else
            parts = coordinates.map { |part| write(type.delete_prefix("Multi"), part) }
            head << [coordinates.size].pack("L<") << parts.join
          end
        end

        def line(positions) = [positions.size].pack("L<") << positions.flatten(1).pack("E*")
        private_class_method :line
      end
    end
  end
end
