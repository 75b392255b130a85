# frozen_string_literal: true

module Thistle
  module Store
    # Model: a look at what came back.
    class Check < Sequel::Model(:checks)
      many_to_one :patch, class: "Thistle::Store::Patch"
      many_to_one :treatment, class: "Thistle::Store::Treatment"

      include Amendable

      # Adds a look at what came back; visits, the course and the patch's state follow.
      def self.record(patch, **fields)
        db.transaction do
          check = create(patch_id: patch.id, cover_before: patch.cover_class, **fields)
          patch.follow_records
          patch.figures.follow_cover
          check.refresh
        end
      end

      def on = checked_on
      def alive = resprouts + missed + seedlings
      def live? = alive.positive? || (cover_class || 0) > 1

      # Control of the stems that were treated; nil when they were not counted.
      def control
        return @control if defined?(@control)

        treated = treatment&.stems_done
        @control = treated && resprouts <= treated ? Core::Recheck::Control.of(treated:, alive: resprouts) : nil
      end

      # What it asks for, where something lives.
      def again
        found = { "alive" => resprouts, "missed" => missed, "seedlings" => seedlings }.select { |_, n| n.positive? }
        words = found.map { |what, n| "#{n} #{what}" }
        "Treat again: #{words.empty? ? "cover is left" : words.join(", ")}"
      end

      private

      def follow
        super
        patch.figures.follow_cover
      end
    end
  end
end
