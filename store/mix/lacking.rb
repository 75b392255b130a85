# frozen_string_literal: true

module Thistle
  module Store
    # Reading: which records of herbicide may lack a fact that a rule asks for, as a condition for SQLite, so that
    # complete ones need not be read. Core::Mix::RecordRule has the last word.
    class Lacking
      COLUMNS = { product: :product_id, mix: :mix_ml, started: :started_at, ended: :ended_at, area: :area_m2,
                  applicator: :applicator, certification: :licence_number, category: :licence_category,
                  equipment: :equipment, left_over: :left_over_ml }.freeze

      def initialize(rule)
        @rule = rule
      end

      # Of all that it asks for; of what may be a spot, which asks for less, of that: the day may make it more.
      def condition
        spot = @rule.spot or return any(@rule.needs)

        any(@rule.needs) | any(spot["needs"])
      end

      private

      def any(needs) = needs.filter_map { |fact| lacks(fact.to_sym) }.reduce(:|)

      def lacks(fact)
        return Sequel[COLUMNS[fact] => nil] if COLUMNS.key?(fact)

        case fact
        when :amount then unsaid("product") | (~Sequel[second_product_id: nil] & unsaid("second_product"))
        when :expiry then Sequel[licence_expires_on: nil] | (Sequel[:licence_expires_on] < Sequel[:done_on])
        when :weather then Sequel[hourly_weather: nil] # what was measured by hand may fill it
        when :target then Sequel[patch_id: Patch.where(plant_key: nil).select(:id)]
        when :registration then registration
        end
      end

      # Neither measured nor weighed.
      def unsaid(which) = %w[ml g].map { |unit| Sequel["#{which}_#{unit}": nil] }.reduce(:&)

      # A label without a number, today or at any time.
      def registration
        unnumbered = Product.where(registration: nil).select(:id)
        changed = LabelVersion.select(:product_id)
        [unnumbered, changed].flat_map { |ids| [Sequel[product_id: ids], Sequel[second_product_id: ids]] }
                             .reduce(Sequel[product_id: nil], :|)
      end
    end
  end
end
