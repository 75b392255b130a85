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
        # struct geod_geodesic holds 51 doubles, geod_polygon 8 doubles and 3 ints; room to spare for both.
        GEODESIC_BYTES = 64 * DOUBLE
        POLYGON_BYTES = 16 * DOUBLE
        MODEL = Fiddle::Pointer.malloc(GEODESIC_BYTES, Fiddle::RUBY_FREE)
        Libproj[:geod_init].call(MODEL, A, F)
        MODEL_AT = MODEL.to_i
        START, ADD, COMPUTE, INVERSE = %i[geod_polygon_init geod_polygon_addpoint geod_polygon_compute geod_inverse].map { |name| Libproj[name] }

        # Memory that one thread measures in.
        Scratch = Struct.new(:polygon, :area, :metres) do
          # The same as addresses, which a call takes at once.
          def at = @at ||= map(&:to_i)
        end
        private_constant :Scratch

        class << self
          # Area in m² of a ring, always positive.
          def area(ring) = measure(ring).first.abs

          # Perimeter of a ring or length of a line, m.
          def perimeter(ring) = measure(ring).last
          def length(line) = line.each_cons(2).sum { |a, b| distance(a, b) }

          # Distance between two points, m.
          def distance(from, to)
            memory = scratch
            INVERSE.call(MODEL_AT, from[1], from[0], to[1], to[0], memory.at[2], 0, 0)
            memory.metres[0, DOUBLE].unpack1("d")
          end

          # [signed area m² (positive counter-clockwise), perimeter m]
          def measure(ring)
            memory = scratch
            polygon, area, length = memory.at
            START.call(polygon, 0)
            corners = ring.first == ring.last ? ring.size - 1 : ring.size
            corners.times { |n| ADD.call(MODEL_AT, polygon, ring[n][1], ring[n][0]) }
            COMPUTE.call(MODEL_AT, polygon, 0, 1, area, length)
            [memory.area[0, DOUBLE].unpack1("d"), memory.metres[0, DOUBLE].unpack1("d")]
          end

          private

          def scratch = Thread.current[:thistle_geodesic] ||= Scratch.new(memory(POLYGON_BYTES), memory(DOUBLE), memory(DOUBLE))
          def memory(bytes) = Fiddle::Pointer.malloc(bytes, Fiddle::RUBY_FREE)
        end
      end
    end
  end
end
