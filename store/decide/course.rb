# frozen_string_literal: true

module Thistle
  module Store
    # Model: a chosen method carried out over years at a patch, step by step.
    class Course < Sequel::Model(:courses)
      many_to_one :patch, class: "Thistle::Store::Patch"
      one_to_many :steps, class: "Thistle::Store::CourseStep", order: %i[due_on id], conditions: { deleted_at: nil }

      dataset_module { def live = where(left_at: nil) }

      # Writes down what core laid out; the patch's earlier course gives way, and Today asks for the knock-down.
      # course: Core::Decide::Course; advised: key of the method that the bench put first.
      def self.begin(patch, course, removal:, advised:, person:, reason:, today:)
        db.transaction do
          patch.courses_dataset.live.each(&:leave)
          made = create(patch_id: patch.id, method_key: removal.key, advised_key: advised, reason:, person:,
                        chosen_on: today,
                        hours: course.hours, years: course.years)
          course.steps.each { |step| made.add_step(step) }
          FollowUps.settle(patch)
          made
        end
      end

      def removal = Core::Knowledge.shipped.removal(method_key)
      def advised = advised_key && Core::Knowledge.shipped.methods_of_removal[advised_key]
      def otherwise? = !advised_key.nil? && advised_key != method_key
      def open_steps = steps.reject(&:done_on)
      def next_step = open_steps.first

      def add_step(step)
        CourseStep.create(course_id: id, kind: step.kind.to_s, due_on: step.on, until_on: step.to, text: step.text,
                          source: step.source,
                          method_key: step.removal&.key)
      end

      def leave
        db.transaction do
          update(left_at: Time.now.utc)
          FollowUps.settle(patch)
        end
      end

      def resume
        db.transaction do
          patch.courses_dataset.live.each(&:leave)
          update(left_at: nil)
          FollowUps.settle(patch)
        end
      end
    end
  end
end
