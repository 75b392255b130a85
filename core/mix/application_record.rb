# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What was written down of one application of herbicide; nil is what nobody said. written_on: when it was kept
      # first; day_area: m² of all work with the same product on that day, nil where some of it is not known.
      ApplicationRecord = Value.define(:product, :registration, :amount, :mix, :done_on, :started, :ended, :place,
                                       :area, :site, :target, :applicator, :certification, :category, :expiry,
                                       :weather, :equipment, :left_over, :written_on, :day_area) do
        # A licence that had run out on the day says nothing.
        def expired? = !expiry.nil? && expiry < done_on
      end
    end
  end
end
