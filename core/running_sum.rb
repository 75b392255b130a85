# frozen_string_literal: true

module Thistle
  module Core
    # Amounts that are added up one after the other.
    module RunningSum
      module_function

      # The first of some items with whose amount, which the block says, the sum reaches `least`; nil where it never
      # does. from: what there is before the first.
      def reaching(least, items, from: 0.0)
        sum = from
        items.find do |item|
          sum += yield(item)
          sum >= least
        end
      end
    end
  end
end
