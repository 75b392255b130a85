# frozen_string_literal: true

module Thistle
  module Store
    # Model: boots, tools, mowers and vehicles cleaned, on a day.
    class Cleaning < Sequel::Model(:cleanings)
      many_to_one :property, class: "Thistle::Store::Property"

      # The last one of each property: {property id => day}.
      def self.last_days = order(:done_on).select_hash(:property_id, :done_on)
    end
  end
end
