# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # How a bed is laid out anew: from where it is looked at, on which lattice, around which trees.
        class Layout
          TREES = 200

          attr_reader :how, :errors

          # units: lengths are typed in them.
          def initialize(params, units)
            @errors, @units = {}, units
            @how = { grid: grid(params["grid"]), front: front(params["front"]),
                     standing: trees(params["standing"].to_s) }
          end

          def ok? = errors.empty?

          private

          def grid(text) = Mix::GRIDS.key?(text) ? text : "triangular"

          def front(text)
            number = Float(text.to_s, exception: false)
            number&.between?(0, 360) ? number : nil
          end

          # [[x, y, r]], one a line.
          def trees(text)
            rows = text.lines.map(&:strip).reject(&:empty?)
            @errors[:standing] = "At most #{TREES} trees." if rows.size > TREES
            rows.first(TREES).each_with_index.filter_map { |row, n| tree(row, n + 1) }
          end

          def tree(row, line)
            numbers = row.split(/[,;\s]+/).map { |text| Float(text, exception: false) }
            read = numbers.size == 3 && numbers.all? { |one| one&.finite? && one.abs < 5000 }
            numbers = numbers.map { |one| @units.to_si(:length, one) } if read
            return numbers if read && numbers[2].between?(0.05, 50)

            @errors[:standing] ||= "Line #{line} is not three numbers: east, north, and " \
                                   "#{@units.length(0.05)} to #{@units.length(50.0)} free around it."
            nil
          end
        end
      end
    end
  end
end
