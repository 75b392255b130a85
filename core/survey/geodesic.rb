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

        class << self
          # Area in m² of a ring, always positive.
          def area(ring) = measure(ring).first.abs

          # Perimeter of a ring or length of a line, m.
          def perimeter(ring) = measure(ring).last
          def length(line) = line.each_cons(2).sum { |a, b| distance(a, b) }

          # Distance between two points, m.
          def distance(from, to)
            out = buffer(1)
            call("geod_inverse", [:ptr, *([:double] * 4), :ptr, :ptr, :ptr], model, from[1], from[0], to[1], to[0], out, 0, 0)
            out[0, DOUBLE].unpack1("d")
          end

          # [signed area m² (positive counter-clockwise), perimeter m]
          def measure(ring)
            points = ring.first == ring.last ? ring[0...-1] : ring
            polygon = Fiddle::Pointer.malloc(POLYGON_BYTES, Fiddle::RUBY_FREE)
            call("geod_polygon_init", %i[ptr int], polygon, 0)
            points.each { |lon, lat| call("geod_polygon_addpoint", %i[ptr ptr double double], model, polygon, lat, lon) }
            area, length = buffer(1), buffer(1)
            call("geod_polygon_compute", %i[ptr ptr int int ptr ptr], model, polygon, 0, 1, area, length)
            [area[0, DOUBLE].unpack1("d"), length[0, DOUBLE].unpack1("d")]
          end

          private

          def model
            @model ||= Fiddle::Pointer.malloc(GEODESIC_BYTES, Fiddle::RUBY_FREE).tap do |memory|
              call("geod_init", %i[ptr double double], memory, A, F)
            end
          end

          def buffer(doubles) = Fiddle::Pointer.malloc(doubles * DOUBLE, Fiddle::RUBY_FREE)

          def call(name, types, *values)
            @functions ||= {}
            @functions[name] ||= Fiddle::Function.new(library[name], types.map { |type| TYPES.fetch(type) }, Fiddle::TYPE_VOID)
            @functions[name].call(*values)
          end

          # Debian 12 has libproj.so.25; the unversioned name comes with libproj-dev.
          def library
            @library ||= Fiddle.dlopen("libproj.so")
          end
        end

        TYPES = { ptr: Fiddle::TYPE_VOIDP, double: Fiddle::TYPE_DOUBLE, int: Fiddle::TYPE_INT }.freeze
      end
    end
  end
end
