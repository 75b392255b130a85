# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Plants of a kind that stand together, so that a drift is one mark and one number.
      module Clumps
        module_function

        # plants: [[x, y, kind]]; reach: of each kind, m within which two belong together. [[x, y, kind, count]], the
        # place that of the plant nearest to the middle.
        def of(plants, reach)
          plants.group_by { |plant| plant[2] }.flat_map do |kind, some|
            groups(some, reach[kind]).map do |group|
              x, y = group.sum(&:first) / group.size, group.sum { |plant| plant[1] } / group.size
              middle = group.min_by { |plant| ((plant[0] - x)**2) + ((plant[1] - y)**2) }
              [middle[0], middle[1], kind, group.size]
            end
          end
        end

        def groups(plants, reach)
          boxes = plants.group_by { |x, y, _| [(x / reach).floor, (y / reach).floor] }
          seen = {}.compare_by_identity
          plants.filter_map { |plant| seen[plant] ? nil : gather(plant, boxes, reach, seen) }
        end

        def gather(first, boxes, reach, seen)
          group, queue = [], [first]
          seen[first] = true
          while (plant = queue.pop)
            group << plant
            near(plant, boxes, reach).each do |other|
              next if seen[other]

              seen[other] = true
              queue << other
            end
          end
          group
        end

        def near((x, y, _), boxes, reach)
          column, row = (x / reach).floor, (y / reach).floor
          [-1, 0, 1].flat_map { |dx| [-1, 0, 1].flat_map { |dy| boxes.fetch([column + dx, row + dy], []) } }
                    .select { |ox, oy, _| ((ox - x)**2) + ((oy - y)**2) <= reach**2 }
        end
        private_class_method :groups, :gather, :near
      end
    end
  end
end
