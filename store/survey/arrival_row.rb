# frozen_string_literal: true

module Thistle
  module Store
    # Model: one row of a file, as read, and what happens to it.
    class ArrivalRow < Sequel::Model(:arrival_rows)
      many_to_one :arrival, class: "Thistle::Store::Arrival"
      many_to_one :patch, class: "Thistle::Store::Patch"

      def cells = JSON.parse(properties || "{}")
    end
  end
end
