# frozen_string_literal: true

module Thistle
  module Store
    # Model: what a sprayer in somebody's hand put on the ground, measured on a day.
    class Calibration < Sequel::Model(:calibrations)
      include Live
      include OfGroup

      dataset_module do
        def newest = reverse(:done_on, :id)
      end

      LISTED = 50

      # Of the group's, by its number; nil for none.
      def self.at_hand(id) = live.here.first(id:)

      # Litres on 100 m², as the tank asks for it.
      def litres_per_100m2 = litres_per_ha / 100

      def said = [sprayer, person].compact.join(", ")
      def take_back = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)
    end
  end
end
