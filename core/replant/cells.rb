# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # A bed's ground in square cells, numbered row by row from the south-west corner of its box.
      class Cells
        attr_reader :pitch, :inside

        # inside: numbers of the cells whose middle lies in the bed.
        def initialize(bed, pitch)
          @west, @south, east, north = bed.box
          @pitch = pitch
          @columns, @rows = [((east - @west) / pitch).ceil, ((north - @south) / pitch).ceil].map { |n| [n, 1].max }
          @inside = bed.lattice(pitch, grid: "square").map { |x, y| at(x, y) }
        end

        def size = @columns * @rows

        # The number of the cell that holds a place.
        def at(x, y)
          column, row = ((x - @west) / @pitch).floor, ((y - @south) / @pitch).floor
          (row.clamp(0, @rows - 1) * @columns) + column.clamp(0, @columns - 1)
        end

        # The middle of a cell.
        def x(cell) = @west + (((cell % @columns) + 0.5) * @pitch)
        def y(cell) = @south + (((cell / @columns) + 0.5) * @pitch)

        # Yields the four cells beside a cell.
        def each_beside(cell)
          column = cell % @columns
          yield cell - 1 if column.positive?
          yield cell + 1 if column < @columns - 1
          yield cell - @columns if cell >= @columns
          yield cell + @columns if cell < size - @columns
        end
      end
    end
  end
end
