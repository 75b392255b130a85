# frozen_string_literal: true

module Thistle
  module Store
    # Model: boots, tools, mowers and vehicles cleaned, on a day.
    class Cleaning < Sequel::Model(:cleanings)
      WHAT = { "boots" => "boots and clothing", "tools" => "tools", "vehicle" => "vehicles and decks" }.freeze

      many_to_one :property, class: "Thistle::Store::Property"

      # "out: boots and clothing, tools"
      def said
        words = JSON.parse(what).map { |key| WHAT.fetch(key) }.join(", ")
        [way && "on the way #{way}", words, people].compact.reject(&:empty?).join(": ")
      end

      # The last one of each property: {property id => day}.
      def self.last_days = order(:done_on).select_hash(:property_id, :done_on)
    end
  end
end
