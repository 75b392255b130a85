# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # Contours of an Elevation by marching squares between the middles of cells; segments are joined to lines.
      class Contours
        # Sides of a square: 0 north, 1 east, 2 south, 3 west. For each set of corners above the level (north-west 1,
        # north-east 2, south-east 4, south-west 8), the sides that the line joins.
        CASES = { 1 => [[3, 0]], 2 => [[0, 1]], 3 => [[3, 1]], 4 => [[1, 2]], 5 => [[3, 0], [1, 2]], 6 => [[0, 2]],
                  7 => [[3, 2]],
                  8 => [[2, 3]], 9 => [[2, 0]], 10 => [[0, 1], [2, 3]], 11 => [[2, 1]], 12 => [[1, 3]], 13 => [[1, 0]],
                  14 => [[0, 3]] }.freeze
        MAX_LEVELS = 200
        MAX_SEGMENTS = 150_000

        def initialize(elevation, step)
          @elevation, @step = elevation, step
        end

        # [[level m, [[lon, lat], ...]], ...], marching squares. Raises BadInput (field :step) for too many
        # levels or strokes.
        def lines
          low, high = @elevation.range || (return [])
          if (high - low) / @step > MAX_LEVELS
            raise BadInput.new("A step of #{@step} m makes more than #{MAX_LEVELS} contours here.", field: :step)
          end

          segments.flat_map do |level, pairs|
            joined(pairs).map { |line| [level, line.map { |key| point(key, level) }] }
          end
        end

        private

        # {level => [[edge, edge]]}; an edge is [column, row, :across or :down], shared by two squares.
        def segments
          found = Hash.new { |hash, level| hash[level] = [] }
          (0...(@elevation.rows - 1)).each do |row|
            (0...(@elevation.columns - 1)).each { |column| square(column, row, found) }
            check(found)
          end
          found
        end

        def check(found)
          return if found.sum { |_, pairs| pairs.size } <= MAX_SEGMENTS

          raise BadInput.new("Contours every #{@step} m are more than #{MAX_SEGMENTS} strokes here: take a wider step.",
                             field: :step)
        end

        def square(column, row, found)
          corners = [[0, 0], [1, 0], [1, 1], [0, 1]].map { |x, y| @elevation.height(column + x, row + y) }
          return if corners.any?(&:nil?)

          low, high = corners.minmax
          (((low / @step).floor + 1)..(high / @step).floor).each do |n|
            level = n * @step
            set = corners.each_with_index.sum { |height, bit| height >= level ? 1 << bit : 0 }
            CASES.fetch(set, []).each { |from, to| found[level] << [edge(column, row, from), edge(column, row, to)] }
          end
        end

        def edge(column, row, side)
          case side
          when 0 then [column, row, :across]
          when 1 then [column + 1, row, :down]
          when 2 then [column, row + 1, :across]
          else [column, row, :down]
          end
        end

        # Segments end to end. Open lines first, from their ends; what is left are rings.
        def joined(pairs)
          ends = Hash.new { |hash, key| hash[key] = [] }
          pairs.each_with_index { |pair, n| pair.each { |key| ends[key] << n } }
          left = pairs.dup
          starts = ends.select { |_, list| list.one? }.keys + pairs.map(&:first)
          starts.filter_map { |key| follow(key, ends, left) }
        end

        def follow(key, ends, left)
          line = [key]
          while (at = ends[line.last].find { |n| left[n] })
            from, to = left[at]
            left[at] = nil
            line << (from == line.last ? to : from)
          end
          line if line.size > 1
        end

        def point((column, row, way), level)
          x, y = way == :across ? [1, 0] : [0, 1]
          from, to = @elevation.height(column, row), @elevation.height(column + x, row + y)
          share = (level - from) / (to - from).to_f
          @elevation.place(column + (x * share), row + (y * share)).map { |n| n.round(7) }
        end
      end
    end
  end
end
