# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What was written down of one application of herbicide; nil is what nobody said. written_on: when it was kept
      # first; day_area: m² of all work with the same product on that day, nil where some of it is not known.
      ApplicationRecord = Value.of(product: %i[product registration amount mix left_over],
                                   ground: %i[place area day_area site target],
                                   crew: %i[applicator certification category expiry equipment],
                                   day: %i[done_on started ended weather written_on]) do
        # A licence that had run out on the day says nothing.
        def expired? = !expiry.nil? && expiry < done_on
      end
    end
  end
end
