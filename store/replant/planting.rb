# frozen_string_literal: true

module Thistle
  module Store
    # Model: what goes back into a patch, and when.
    class Planting < Sequel::Model(:plantings)
      many_to_one :patch, class: "Thistle::Store::Patch"
      include Amendable

      many_to_one :plan, class: "Thistle::Store::PlantingPlan"
      one_to_many :counts, class: "Thistle::Store::SurvivorCount", key: :planting_id, order: %i[counted_on id],
                           conditions: { deleted_at: nil }

      def on = from_on

      # The half of the year in which it was planted: :spring while days grow longer, else :autumn.
      def season
        day = done_on || from_on
        long = day.month.between?(1, 6)
        long == patch.property.latitude.positive? ? :spring : :autumn
      end

      # Marks it as planted on a day; count: how many went in, where they are not as many as were planned.
      def planted(date, count = nil) = update(done_on: date, planted_count: count == plugs ? nil : count)

      # "40 pots", "36 of 40 plugs" where fewer went in; as it is bought.
      def amount_said
        stock = Core::Replant::Native::STOCK.fetch(Core::Replant::Stock.of(native))
        planted_count ? "#{planted_count} of #{plugs} #{stock}" : "#{plugs} #{stock}"
      end

      # How many stand in the ground, as far as anybody said; nil for seed.
      def in_ground = planted_count || plugs

      def native = Core::Knowledge.shipped.native(native_key)
    end
  end
end
