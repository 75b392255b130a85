# frozen_string_literal: true

require "fiddle"

module Thistle
  module Core
    module Survey
      # Areas and lengths on the WGS84 ellipsoid along geodesic edges, computed by PROJ's geodesic routines
      # (Karney 2013) in libproj. Points are [longitude, latitude] in degrees, as in GeoJSON.
      module Geodesic
        A = 6_378_137.0
        F = 1 / 298.257223563
        DOUBLE = Fiddle::SIZEOF_DOUBLE
        MODEL_BYTES = 64 * DOUBLE # struct geod_geodesic holds 51 doubles; room to spare
        MODEL = Fiddle::Pointer.malloc(MODEL_BYTES, Fiddle::RUBY_FREE)
        Libproj[:geod_init].call(MODEL, A, F)
        MODEL_AT = MODEL.to_i # as an address, which a call takes at once
        AREA, INVERSE = Libproj[:geod_polygonarea], Libproj[:geod_inverse]

        class << self
          # Area in m² of a ring, always positive.
          def area(ring) = measure(ring).first.abs

          # Perimeter of a ring or length of a line, m.
          def perimeter(ring) = measure(ring).last
          def length(line) = line.each_cons(2).sum { |a, b| distance(a, b) }

          # Distance between two points, m.
          def distance(from, to)
            out = "\0" * DOUBLE
            INVERSE.call(MODEL_AT, from[1], from[0], to[1], to[0], address(out), 0, 0)
            out.unpack1("d")
          end

          # [signed area m² (positive counter-clockwise), perimeter m]
          def measure(ring)
            size = ring.first == ring.last ? ring.size - 1 : ring.size
            numbers = Array.new(2 + (2 * size), 0.0) # area and perimeter, longitudes, latitudes: in one piece
            size.times { |n| numbers[2 + n], numbers[2 + size + n] = ring[n] }
            bytes = numbers.pack("d*")
            at = address(bytes)
            lons, lats = at + (2 * DOUBLE), at + ((2 + size) * DOUBLE)
            AREA.call(MODEL_AT, lats, lons, size, at, at + DOUBLE)
            bytes.unpack("d2")
          end

          private

          # Where a string's bytes are; it must outlive the call.
          def address(bytes) = Fiddle::Pointer[bytes].to_i
        end
      end
    end
  end
end
