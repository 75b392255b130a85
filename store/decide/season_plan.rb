# frozen_string_literal: true

module Thistle
  module Store
    # Model: a season plan: what was asked, and what the solver answered.
    class SeasonPlan < Sequel::Model(:season_plans)
      include Amendable

      many_to_one :property, class: "Thistle::Store::Property"

      include Live

      # The last plan of a property that was solved.
      def self.current(property) = current_of([property.id])[property.id]

      # {property id => its last plan that was solved}.
      def self.current_of(ids)
        last = live.where(property_id: ids, status: "solved").group(:property_id).select { max(:id) }
        where(id: last).as_hash(:property_id)
      end

      # What it has planned for the week of a day and was not worked on since that Monday: [item].
      def this_week(today)
        monday = (today - ((today.wday - 1) % 7)).iso8601
        items = answered[:items].select { |item| item[:week] == monday }
        done = Treatment.where(deleted_at: nil, patch_id: items.map { |item| item[:patch] })
                        .where { done_on >= monday }.select_map(:patch_id)
        items.reject { |item| done.include?(item[:patch]) }
      end

      # Nothing of a patch follows from a plan.
      def follow = nil

      def on = property.clock.date(created_at)
      def asked_for = JSON.parse(asked)
      def answered = answer && JSON.parse(answer, symbolize_names: true)
      def solving? = status == "solving" && !(job.nil? || job.lost?)

      # How long it has been worked on; any process may ask.
      def job = @job ||= Job.of("plan", self)
      def seconds = job ? job.seconds : 0

      STOPPED = "The server stopped while it was solved. Ask again."

      # Plans whose solver is gone.
      def self.recover(all: false)
        Job.recover("plan", all:) do |id|
          where(id:, status: "solving").update(status: "failed", fault: STOPPED)
        end
      end
    end
  end
end
