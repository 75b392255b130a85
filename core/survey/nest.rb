# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # Shapes kept by place, to find one within a distance: cells of a grid first, then true metres.
      class Nest
        # Is it the same ground? asked of what was kept and the shape looked for, where their boxes are near enough.
        def initialize(metres, &same)
          @metres, @same = metres, same
          @cells = Hash.new { |hash, key| hash[key] = [] }
          @large, @all = [], []
        end

        # What spans many cells is kept apart.
        def add(box, thing)
          @all << [box, thing]
          many?(box) ? @large << [box, thing] : each_cell(box) { |key| @cells[key] << [box, thing] }
        end

        # The first thing kept that is near the shape, or nil.
        def near(shape)
          box = around(shape.bounds)
          return pick(@all, box, shape) if many?(box)

          each_cell(box) do |key|
            found = @cells.key?(key) && pick(@cells[key], box, shape)
            return found if found
          end
          pick(@large, box, shape)
        end

        private

        CELL = 0.002 # degrees
        MANY = 60 # cells
        private_constant :CELL, :MANY

        def each_cell((west, south, east, north))
          ((west / CELL).floor..(east / CELL).floor).each do |x|
            ((south / CELL).floor..(north / CELL).floor).each { |y| yield((x * 1_000_000) + y) }
          end
        end

        def pick(list, box, shape) = list.find { |other, thing| meets?(other, box) && @same.call(thing, shape) }&.last

        def many?(box)
          (box[2] - box[0]) * (box[3] - box[1]) > MANY * CELL * CELL ||
            [box[2] - box[0], box[3] - box[1]].max > MANY * CELL
        end

        def around(box) = Degrees.around(box, @metres)

        def meets?(a, b) = a[0] <= b[2] && a[2] >= b[0] && a[1] <= b[3] && a[3] >= b[1]
      end
    end
  end
end
