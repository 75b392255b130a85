# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What was written down of one application of herbicide; nil is what nobody said. written_on: when it was kept
      # first.
      ApplicationRecord = Value.define(:product, :registration, :amount, :mix, :done_on, :started, :ended, :place,
                                       :area, :site, :target, :applicator, :certification, :category, :expiry,
                                       :weather, :equipment, :left_over, :written_on) do
        # A licence that had run out on the day says nothing.
        def expired? = !expiry.nil? && expiry < done_on
      end
    end
  end
end
