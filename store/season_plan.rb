# frozen_string_literal: true

module Thistle
  module Store
    # A season plan: what was asked, and what the solver answered.
    class SeasonPlan < Sequel::Model(:season_plans)
      many_to_one :property, class: "Thistle::Store::Property"

      # The last plan of a property that was solved.
      def self.current(property) = where(property_id: property.id, status: "solved").reverse(:id).first

      # What it has planned for the week of a day and was not worked on since that Monday: [item].
      def this_week(today)
        monday = (today - ((today.wday - 1) % 7)).iso8601
        items = answered[:items].select { |item| item[:week] == monday }
        done = Treatment.where(patch_id: items.map { |item| item[:patch] }).where { done_on >= monday }.select_map(:patch_id)
        items.reject { |item| done.include?(item[:patch]) }
      end

      def asked_for = JSON.parse(asked)
      def answered = answer && JSON.parse(answer, symbolize_names: true)
      def solving? = status == "solving"
    end
  end
end
