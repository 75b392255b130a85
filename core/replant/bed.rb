# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # The ground of a bed on a plane, metres east and north: rings of which what lies inside an odd number belongs to
      # it, less what stands there. Scanned along rows, so that a lattice of thousands is quick.
      class Bed
        EDGE = 0.01 # m from the edge, on which nothing is planted
        Standing = Value.define(:x, :y, :r)

        attr_reader :rings, :standing

        # rings: [[[x, y]]], the outline and holes of every part; standing: trees and the like, [Standing]. Raises
        # BadInput (field :area) for ground of nothing.
        def initialize(rings, standing: [])
          @rings = turned(rings.select { |ring| ring.size > 3 })
          raise BadInput.new("There is no ground to plant.", field: :area) if @rings.empty?

          @edges = @rings.flat_map { |ring| ring.each_cons(2).to_a }
          @standing = standing
        end

        # [west, south, east, north]
        def box
          @box ||= begin
            xs, ys = @rings.flatten(1).transpose
            [xs.min, ys.min, xs.max, ys.max]
          end
        end

        # m², by the rings; what stands there is not taken off.
        def area = @area ||= size(@rings)

        # The part of it, so many m², that is nearest to whoever looks from a bearing; all of it where it is no larger.
        def nearest(m2, bearing)
          return self if m2 >= area * 0.999

          angle = bearing * Math::PI / 180
          toward = [Math.sin(angle), Math.cos(angle)]
          far, near = @rings.flatten(1).map { |x, y| (x * toward[0]) + (y * toward[1]) }.minmax
          30.times do
            middle = (far + near) / 2
            cut(toward, middle).then { |rings| size(rings) > m2 ? far = middle : near = middle }
          end
          Bed.new(cut(toward, far), standing: @standing)
        end

        # Places of a lattice so far apart (m) inside the bed, row by row: [[x, y]]. The first lies half a space from
        # the south-west corner of the box; phase, 0..1, shifts it along. Raises BadInput (field :spacing or :grid).
        def lattice(spacing, grid: "triangular", phase: 0.0)
          raise BadInput.new("The spacing is above 0.", field: :spacing) unless spacing.positive?

          west, south, _, north = box
          share = PlantingRate::GRIDS.fetch(grid) do
            raise BadInput.new("The grid is triangular or square.", field: :grid)
          end
          step = spacing * share
          rows = ((north - south) / step).ceil
          (0..rows).flat_map do |n|
            y = south + ((n + 0.5 - phase) * step)
            along(y, west, spacing, (grid == "triangular" && n.odd? ? 0.5 : 0.0) + phase)
          end
        end

        # Is a place in the bed, and on nothing that stands there?
        def include?(x, y) = crossings(y).count { |at| at < x }.odd? && free?(x, y)

        private

        def along(y, west, spacing, shift)
          crossings(y).each_slice(2).flat_map do |from, to|
            next [] unless to

            first = (((from + EDGE - west) / spacing) - 0.5 - shift).ceil
            last = (((to - EDGE - west) / spacing) - 0.5 - shift).floor
            (first..last).map { |n| [west + ((n + 0.5 + shift) * spacing), y] }.select { |at| free?(*at) }
          end
        end

        def crossings(y)
          @edges.filter_map do |(x1, y1), (x2, y2)|
            x1 + ((y - y1) / (y2 - y1) * (x2 - x1)) if (y1 > y) != (y2 > y)
          end.sort
        end

        def free?(x, y) = @standing.none? { |one| ((one.x - x)**2) + ((one.y - y)**2) < one.r**2 }

        # Outlines run against the clock and holes with it, however they were drawn.
        def turned(rings)
          rings.map do |ring|
            around = rings.reject { |other| other.equal?(ring) }.count { |other| holds?(other, ring) }
            signed(ring).positive? == around.even? ? ring : ring.reverse
          end
        end

        # Do most corners of a ring lie in another?
        def holds?(other, ring)
          inside = ring.count do |x, y|
            other.each_cons(2).count do |(x1, y1), (x2, y2)|
              (y1 > y) != (y2 > y) && x1 + ((y - y1) / (y2 - y1) * (x2 - x1)) < x
            end.odd?
          end
          inside * 2 > ring.size
        end

        # m² of rings.
        def size(rings) = rings.sum { |ring| signed(ring) }.abs

        # Rings cut off at a line across a direction (Sutherland and Hodgman).
        def cut(toward, depth)
          @rings.map do |ring|
            inside = ring.each_cons(2).flat_map { |from, to| kept(from, to, toward, depth) }
            inside.any? ? [*inside, inside.first] : []
          end.reject(&:empty?)
        end

        def kept(from, to, toward, depth)
          a, b = [from, to].map { |x, y| (x * toward[0]) + (y * toward[1]) - depth }
          cross = (a >= 0) == (b >= 0) ? [] : [from.zip(to).map { |p, q| p + ((q - p) * a / (a - b)) }]
          b >= 0 ? [*cross, to] : cross
        end

        def signed(ring) = ring.each_cons(2).sum { |(x1, y1), (x2, y2)| (x1 * y2) - (x2 * y1) } / 2
      end
    end
  end
end
