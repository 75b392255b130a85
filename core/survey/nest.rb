# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # Shapes kept by place, to find one within a distance: cells of a grid first, then true metres.
      class Nest
        M_PER_DEGREE = 110_574.0 # the shortest degree of latitude

        # Degrees that hold `metres` east or west and north or south at a box's latitude.
        def self.degrees(metres, (_, south, _, north))
          metres / (M_PER_DEGREE * Math.cos([south.abs, north.abs].max * Math::PI / 180).clamp(0.02, 1))
        end

        def initialize(metres)
          @metres = metres
          @cells = Hash.new { |hash, key| hash[key] = [] }
        end

        def add(shape, label)
          each_cell(shape.bounds) { |key| @cells[key] << [shape, label] }
        end

        # The label of a shape within the distance, or nil.
        def near(shape)
          pad = self.class.degrees(@metres, shape.bounds)
          west, south, east, north = shape.bounds
          box = [west - pad, south - pad, east + pad, north + pad]
          tried = {}.compare_by_identity
          each_cell(box) do |key|
            next unless @cells.key?(key)

            @cells[key].each do |other, label|
              next if tried[other]

              tried[other] = true
              return label if meets?(other.bounds, box) && other.distance(shape) <= @metres
            end
          end
          nil
        end

        private

        CELL = 0.002 # degrees
        private_constant :CELL

        def each_cell((west, south, east, north))
          ((west / CELL).floor..(east / CELL).floor).each do |x|
            ((south / CELL).floor..(north / CELL).floor).each { |y| yield [x, y] }
          end
        end

        def meets?(a, b) = a[0] <= b[2] && a[2] >= b[0] && a[1] <= b[3] && a[3] >= b[1]
      end
    end
  end
end
