# frozen_string_literal: true

module Thistle
  module Store
    # A look at what came back.
    class Check < Sequel::Model(:checks)
      many_to_one :patch, class: "Thistle::Store::Patch"
      many_to_one :treatment, class: "Thistle::Store::Treatment"

      # Adds a check, ticks off the visits it answers, asks for treatment where something lives, moves the patch.
      def self.record(patch, **fields)
        db.transaction do
          check = create(patch_id: patch.id, treatment_id: patch.last_treatment&.id, **fields)
          check.answer_tasks
          patch.course&.checked(check.checked_on)
          patch.update(cover_class: check.cover_class) if check.cover_class
          patch.follow_records
          check
        end
      end

      def alive = resprouts + missed + seedlings
      def live? = alive.positive? || (cover_class || 0) > 1

      # Control of the stems that were treated; nil when they were not counted.
      def control
        return @control if defined?(@control)

        treated = treatment&.stems_done
        @control = treated && resprouts <= treated ? Core::Recheck::Control.of(treated:, alive: resprouts) : nil
      end

      # Visits due by the day of the check, or within two weeks after it, count as made; what it finds
      # takes the place of what an earlier check asked for.
      def answer_tasks
        patch.tasks_dataset.where(done_on: nil, kind: "treat", treatment_id: nil, course_id: nil).update(done_on: checked_on)
        patch.tasks_dataset.where(done_on: nil, kind: "check").where(Sequel[:due_on] <= checked_on + 14).update(done_on: checked_on)
        return unless live?

        Task.create(patch_id:, kind: "treat", due_on: checked_on, source: "common_practice", reason: again)
      end

      def again
        found = { "alive" => resprouts, "missed" => missed, "seedlings" => seedlings }.select { |_, n| n.positive? }
        words = found.map { |what, n| "#{n} #{what}" }
        "Treat again: #{words.empty? ? "cover is left" : words.join(", ")}"
      end
    end
  end
end
