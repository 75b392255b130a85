# frozen_string_literal: true

module Thistle
  module Core
    # Degrees and metres near a place, where the ground is flat: for boxes, drawings and short ways. What is measured
    # is measured by Survey::Geodesic.
    module Degrees
      SHORTEST = 110_574.0 # m: a degree of latitude at the equator; none is shorter on WGS84
      RADIANS = Math::PI / 180

      module_function

      # Metres of a degree of longitude and of latitude there (the usual series on WGS84, recalled; right to 1 in
      # 10 000).
      def metres(lat)
        phi = lat * RADIANS
        [(111_412.84 * Math.cos(phi)) - (93.5 * Math.cos(3 * phi)),
         111_132.92 - (559.82 * Math.cos(2 * phi)) + (1.175 * Math.cos(4 * phi))]
      end

      # [east, north] in metres of a place as seen from another, across the 180° meridian too.
      def flat((lon, lat), (from_lon, from_lat))
        along, up = metres((lat + from_lat) / 2.0)
        [(((lon - from_lon + 540) % 360) - 180) * along, (lat - from_lat) * up]
      end

      # Metres between two places so near that the ground is flat.
      def apart(one, other) = Math.hypot(*flat(one, other))

      # Degrees east or west, and north or south, that hold so many metres anywhere between two latitudes.
      def holding(metres, south, north = south)
        up = metres / SHORTEST
        [up / Math.cos([south.abs, north.abs].max * RADIANS).clamp(0.01, 1), up]
      end

      # A box [west, south, east, north] with everything that is no further from it than so many metres.
      def around((west, south, east, north), metres)
        wide, up = holding(metres, south, north)
        [west - wide, south - up, east + wide, north + up]
      end
    end
  end
end
