# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Percentiles of a few numbers, straight lines between them (as R's type 7 and spreadsheets do).
      module Percentile
        module_function

        # share 0..1 of a sorted, non-empty array.
        def of(sorted, share)
          at = share * (sorted.size - 1)
          low, high = sorted[at.floor], sorted[at.ceil]
          low + ((high - low) * (at - at.floor))
        end

        # [10th, 50th, 90th], rounded to whole numbers.
        def spread(numbers)
          sorted = numbers.sort
          [0.1, 0.5, 0.9].map { |share| of(sorted, share).round }
        end
      end
    end
  end
end
