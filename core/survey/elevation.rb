# frozen_string_literal: true

require "rgeo"
require "rgeo/geo_json"
require "rgeo/proj4"

module Thistle
  module Core
    module Survey
      # A grid of heights in m: slope and aspect after Horn (1981), hill-shade, and contours.
      # Rows run from north to south. A cell without a height, or beside one, has no slope.
      class Elevation
        # degrees of slope, aspect in degrees from north (nil where flat), cells that answered, cells asked.
        Lie = Value.define(:slope, :steepest, :aspect, :cells, :asked, :low, :high) do
          # flat, slope or steep, as the rules know it; the bounds are planning values (memory).
          def kind
            [["flat", FLAT], ["slope", STEEP], ["steep", Float::INFINITY]].find { |_, below| slope < below }.first
          end

          def faces = aspect && POINTS[((aspect + 22.5) % 360 / 45).floor]
        end

        FLAT, STEEP = 8.5, 19.3 # degrees: 15 and 35 % (memory)
        POINTS = %w[north north-east east south-east south south-west west north-west].freeze
        LEVEL = 0.05 # degrees: flatter than this faces nowhere
        MAX_CELLS = 4_000_000

        # bounds: [west, south, east, north] in degrees.
        attr_reader :columns, :rows, :west, :south, :cell, :bounds

        # west, south: outer corner of the grid; cell: size of a cell, in degrees or in the units of `crs` (a PROJ
        # string or EPSG code); heights: row by row from the north, nil for a gap.
        def initialize(columns:, rows:, west:, south:, cell:, heights:, crs: nil)
          @columns, @rows, @west, @south, @cell, @heights = columns, rows, west, south, cell, heights
          @ground = crs && RGeo::Geos.factory(coord_sys: crs, coord_sys_class: RGeo::CoordSys::Proj4)
          @bounds = box
          freeze
        end

        def projected? = !@ground.nil?

        # m in a cell, counted from the north-west; nil outside, or where it is not known.
        def height(column, row)
          column.between?(0, columns - 1) && row.between?(0, rows - 1) ? @heights[(row * columns) + column] : nil
        end

        # [lowest, highest] in m, or nil when every cell is a gap.
        def range = @heights.compact.minmax.then { |low, high| low && [low, high] }
        def gaps = @heights.count(nil)

        # [degrees of slope, aspect in degrees clockwise from north or nil]; nil at an edge or beside a gap.
        def lie_at(column, row)
          nine = (-1..1).flat_map { |y| (-1..1).map { |x| height(column + x, row + y) } }
          return if nine.any?(&:nil?)

          east, south = differences(nine, row)
          steep = Math.atan(Math.hypot(east, south)) * 180 / Math::PI
          [steep, steep < LEVEL ? nil : ((Math.atan2(-east, south) * 180 / Math::PI) + 360) % 360]
        end

        # The lie of the land under a shape: every cell whose middle is on it, else the cell that it stands in.
        def lie(shape)
          return unless meets?(shape.bounds)

          found = cells(shape)
          lies = found.filter_map { |column, row| lie_at(column, row)&.push(height(column, row)) }
          return if lies.empty?

          low, high = lies.map(&:last).minmax
          Lie.new(slope: lies.sum(&:first) / lies.size, steepest: lies.map(&:first).max,
                  aspect: middle(lies.filter_map { |l| l[1] }),
                  cells: lies.size, asked: found.size, low:, high:)
        end

        # Shades from 0 to 255, row by row, light from the north-west at 45° (nil for a gap).
        def shades(sun: 315.0, height: 45.0)
          toward, up = (360 - sun + 90) * Math::PI / 180, height * Math::PI / 180
          (0...rows).flat_map { |row| (0...columns).map { |column| shade(column, row, toward, up) } }
        end

        # [[height, [[lon, lat], ...]]], a line wherever the ground passes a multiple of `step` metres.
        def contours(step) = Contours.new(self, step).lines

        # [lon, lat] of a place given in columns and rows, the middle of the first cell being 0, 0.
        def place(column, row)
          x, y = west + ((column + 0.5) * cell), south + ((rows - row - 0.5) * cell)
          return [x, y] unless projected?

          at = RGeo::Feature.cast(@ground.point(x, y), factory: Plane::GLOBE, project: true)
          [at.x, at.y]
        end

        # Three corners, for laying a picture on the map: north-west, north-east, south-west.
        def corners = [[-0.5, -0.5], [columns - 0.5, -0.5], [-0.5, rows - 0.5]].map { |c, r| place(c, r) }

        private

        def box
          lons, lats = [-0.5, columns - 0.5].product([-0.5, rows - 0.5]).map { |c, r| place(c, r) }.transpose
          [lons.min, lats.min, lons.max, lats.max]
        end

        def meets?((west, south, east, north))
          west <= bounds[2] && east >= bounds[0] && south <= bounds[3] && north >= bounds[1]
        end

        # Horn's weighted differences: rise toward the east and toward the south, m a metre.
        def differences((a, b, c, d, _, f, g, h, i), row)
          dx, dy = steps(row)
          [((c + (2 * f) + i) - (a + (2 * d) + g)) / (8 * dx), ((g + (2 * h) + i) - (a + (2 * b) + c)) / (8 * dy)]
        end

        # m between the middles of neighbouring cells, east and south.
        def steps(row)
          return [cell, cell] if projected?

          lat = (south + ((rows - row - 0.5) * cell)) * Math::PI / 180
          # Radii of curvature of the WGS84 ellipsoid across and along the meridian.
          e2 = Geodesic::F * (2 - Geodesic::F)
          bulge = 1 - (e2 * (Math.sin(lat)**2))
          across = Geodesic::A / Math.sqrt(bulge) * Math.cos(lat)
          [cell * Math::PI / 180 * across, cell * Math::PI / 180 * Geodesic::A * (1 - e2) / (bulge**1.5)]
        end

        def shade(column, row, toward, up)
          lie = lie_at(column, row) or return

          slope = lie[0] * Math::PI / 180
          facing = (360 - (lie[1] || 0) + 90) * Math::PI / 180
          light = (Math.sin(up) * Math.cos(slope)) + (Math.cos(up) * Math.sin(slope) * Math.cos(toward - facing))
          (light.clamp(0, 1) * 255).round
        end

        def middle(aspects)
          return if aspects.empty?

          x, y = %i[cos sin].map { |f| aspects.sum { |a| Math.send(f, a * Math::PI / 180) } }
          ((Math.atan2(y, x) * 180 / Math::PI) + 360) % 360
        end

        def cells(shape)
          on_grid = shape.positions.map { |lon, lat| grid(lon, lat) }
          inside = shape.kind == "polygon" ? cells_inside(shape, on_grid) : []
          inside.empty? ? on_grid.map { |place| place.map(&:round) }.uniq : inside
        end

        def cells_inside(shape, on_grid)
          rings = shape.parts.flatten(1).map { |ring| ring.map { |lon, lat| grid(lon, lat) } }
          (c0, c1), (r0, r1) = on_grid.transpose.map(&:minmax)
          (r0.ceil..r1.floor).flat_map do |row|
            crossings = rings.flat_map { |ring| crossings(ring, row) }.sort
            crossings.each_slice(2).flat_map do |from, to|
              to ? ([from, c0].max.ceil..[to, c1].min.floor).map { |column| [column, row] } : []
            end
          end
        end

        # Columns at which a ring crosses the middle of a row.
        def crossings(ring, row)
          ring.each_cons(2).filter_map do |(x, y), (u, v)|
            x + ((row - y) * (u - x) / (v - y)) if (y <= row) != (v <= row)
          end
        end

        # Columns and rows of a place, the inverse of `place`.
        def grid(lon, lat)
          x, y = lon, lat
          if projected?
            at = RGeo::Feature.cast(Plane::GLOBE.point(lon, lat), factory: @ground, project: true)
            x, y = at.x, at.y
          end
          [((x - west) / cell) - 0.5, rows - 0.5 - ((y - south) / cell)]
        end
      end
    end
  end
end
