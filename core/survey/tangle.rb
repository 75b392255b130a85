# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # How much work shapes are for whoever lays them over one another: the pairs of edges whose boxes meet, counted
      # before it starts and only until there are too many. What costs GEOS is crossings, not corners: a fan of 25
      # spikes takes as long to widen as a track of 20 000 fixes.
      class Tangle
        FREE = 300 # pairs that cost nothing to speak of
        EACH = 8 # pairs an edge that any outline or track has
        SMALL = 24 # edges below which nothing is counted: they cannot cross often enough

        # A run of edges and the box around them.
        Node = Struct.new(:west, :south, :east, :north, :parts) do
          # Do their boxes touch?
          def meets?(other)
            west <= other.east && other.west <= east && south <= other.north && other.south <= north
          end
        end

        # Is it more than can be done while others wait? reach: metres that each is widened by.
        def self.heavy?(shapes, reach: 0) = new(shapes, reach:).heavy?

        def initialize(shapes, reach: 0)
          @lines = shapes.flat_map { |shape| lines(shape.geometry["coordinates"]) }
          @edges = @lines.sum { |line| line.size - 1 }
          lat = @edges > SMALL ? @lines.first.first[1] : 0
          @along, @up = Degrees.holding(reach, lat)
        end

        # Are there more pairs than are free? It counts no further than that.
        def heavy?
          return false if @edges <= SMALL

          @left = FREE + (EACH * @edges)
          within(tree(@lines.map { |line| tree(leaves(line)) }))
          @left.negative?
        end

        private

        # Lists of positions, of a geometry of any depth.
        def lines(list)
          return [] if list.first.is_a?(Numeric)

          list.first.first.is_a?(Numeric) ? [list] : list.flat_map { |inner| lines(inner) }
        end

        def leaves(line)
          line.each_cons(2).map do |(x, y), (u, v)|
            Node.new([x, u].min - @along, [y, v].min - @up, [x, u].max + @along, [y, v].max + @up, nil)
          end
        end

        # Halves of halves, in the order of the line: what is near in it is near on the ground.
        def tree(nodes)
          return nodes.first if nodes.size < 2

          parts = nodes.each_slice((nodes.size + 1) / 2).map { |half| tree(half) }
          Node.new(parts.map(&:west).min, parts.map(&:south).min, parts.map(&:east).max, parts.map(&:north).max, parts)
        end

        def within(node)
          return if node.nil? || node.parts.nil? || @left.negative?

          node.parts.each { |part| within(part) }
          between(*node.parts)
        end

        def between(one, other)
          return unless @left >= 0 && one.meets?(other)
          return @left -= 1 unless one.parts || other.parts

          if one.parts
            one.parts.each { |part| between(part, other) }
          else
            other.parts.each { |part| between(one, part) }
          end
        end
      end
    end
  end
end
