# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # Cover classes after Daubenmire (1959), recalled: bounds and midpoints in percent.
      module Cover
        Class = Value.define(:key, :low, :high, :middle) do
          def label = "#{low}–#{high} %"
        end

        CLASSES = [[1, 0, 5, 2.5], [2, 5, 25, 15], [3, 25, 50, 37.5], [4, 50, 75, 62.5], [5, 75, 95, 85],
                   [6, 95, 100, 97.5]]
                  .map { |key, low, high, middle| Class.new(key:, low:, high:, middle:) }.freeze

        module_function

        # The class that a percentage falls in; a value on a bound belongs to the lower class. Raises BadInput
        # (field :cover) past 0 and 100.
        def of(percent)
          raise BadInput.new("Cover is between 0 and 100 %.", field: :cover) unless percent.between?(0, 100)

          CLASSES.find { |c| percent <= c.high }
        end

        def class_of(key) = CLASSES.find { |c| c.key == key.to_i }

        # Infested area as an estimate, m²: gross area x class midpoint. Nil without both.
        def infested(gross_m2, key)
          found = key && class_of(key)
          found && gross_m2 && (gross_m2 * found.middle / 100)
        end
      end
    end
  end
end
