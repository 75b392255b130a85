# frozen_string_literal: true

module Thistle
  module Store
    # Model: a management plan of a property as it was handed on: what was asked for, and what it said on that day. A
    # later one never changes it.
    class LandPlan < Sequel::Model(:land_plans)
      many_to_one :property, class: "Thistle::Store::Property"

      include Live

      STOPPED = "The server stopped while the plan was made. Make it again."

      class << self
        # The next version for a property, with nothing in it yet. asked: {parts: [key], notes: {key => text}, years:}.
        def begin(property, made_on:, made_by:, asked:)
          db.transaction do
            version = where(property_id: property.id).max(:version).to_i + 1
            create(property_id: property.id, version:, made_on:, made_by:, asked: JSON.generate(asked),
                   created_at: Time.now.utc)
          end
        end

        # Plans whose maker is gone.
        def recover(all: false)
          Job.recover("land_plan", all:) do |id|
            where(id:, status: "making").update(status: "failed", fault: STOPPED)
          end
        end
      end

      def asked_for = JSON.parse(asked)
      # [{"key", "title", "blocks"}], as Web::Records::Reports::Part writes them; [] until it is made.
      def parts = said ? JSON.parse(said) : []
      # {plant => {"patches", "m2", "hours", …}} on the day it was made.
      def sums = figures ? JSON.parse(figures) : {}

      def making? = status == "making" && !(job.nil? || job.lost?)
      def made? = status == "made"
      def job = @job ||= Job.of("land_plan", self)

      # The version before it that was made.
      def before
        LandPlan.live.where(property_id:, status: "made").where(Sequel[:version] < version).reverse(:version).first
      end

      def take_back = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)
    end
  end
end
