# frozen_string_literal: true

module Thistle
  module Store
    # Model: a count of what took: how many of one native live of those looked at, or how much of the ground is covered.
    class SurvivorCount < Sequel::Model(:take_counts)
      many_to_one :planting, class: "Thistle::Store::Planting"

      include Live

      # Adds a count; the visit that asked for it is made by it.
      def self.record(planting, **fields)
        db.transaction do
          create(planting_id: planting.id, **fields, created_at: Time.now).tap(&:follow)
        end
      end

      # Taken back, or kept again; what follows from it follows.
      def take_back = keep(Time.now)
      def bring_back = keep(nil)

      # Visits of the ground that it was counted on.
      def follow = FollowUps.settle_kin(planting.patch)

      def keep(deleted_at)
        db.transaction do
          update(deleted_at:)
          follow
        end
      end
      private :keep

      # Percents of cover, one a frame; none where plants were counted.
      def percents = frames ? JSON.parse(frames) : []

      # {[native key, season] => [alive, looked at]} of the latest count of each planting, over all properties: what was
      # learned of each native, planted in spring or in autumn.
      def self.learned
        rows = live.exclude(alive: nil).eager(:planting).order(:counted_on, :id).all
        rows.to_h { |row| [row.planting_id, row] }.each_value.with_object({}) do |row, all|
          next unless row.planting.done_on && row.planting.deleted_at.nil?

          key = [row.planting.native_key, row.planting.season]
          all[key] = all.fetch(key, [0, 0]).zip([row.alive, row.looked_at]).map(&:sum)
        end
      end
    end
  end
end
