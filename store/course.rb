# frozen_string_literal: true

module Thistle
  module Store
    # A chosen method carried out over years at a patch, step by step.
    class Course < Sequel::Model(:courses)
      many_to_one :patch, class: "Thistle::Store::Patch"
      one_to_many :steps, class: "Thistle::Store::CourseStep", order: %i[due_on id], conditions: { deleted_at: nil }

      dataset_module { def live = where(left_at: nil) }

      # Writes down what core laid out; the patch's earlier course gives way, and Today asks for the knock-down.
      # course: Core::Decide::Course; advised: key of the method that the bench put first.
      def self.begin(patch, course, removal:, advised:, person:, reason:, today:)
        db.transaction do
          patch.courses_dataset.live.each(&:leave)
          made = create(patch_id: patch.id, method_key: removal.key, advised_key: advised, reason:, person:, chosen_on: today,
                        hours: course.hours, years: course.years)
          course.steps.each { |step| made.add_step(step) }
          made.ask
          made
        end
      end

      def removal = Core::Knowledge.shipped.removal(method_key)
      def advised = advised_key && Core::Knowledge.shipped.methods_of_removal[advised_key]
      def otherwise? = !advised_key.nil? && advised_key != method_key
      def open_steps = steps.reject(&:done_on)
      def next_step = open_steps.first

      def add_step(step)
        CourseStep.create(course_id: id, kind: step.kind.to_s, due_on: step.on, until_on: step.to, text: step.text, source: step.source,
                          method_key: step.removal&.key)
      end

      # Today asks for the next treatment of the course.
      def ask
        db[:tasks].where(course_id: id, done_on: nil).delete
        step = steps_dataset.where(done_on: nil, kind: %w[seed mark treat]).first or return
        reason = step.removal ? "Course: #{step.removal.name.downcase}" : step.text
        Task.create(patch_id:, course_id: id, kind: "treat", due_on: step.due_on, reason:, source: step.source)
      end

      # A treatment was recorded: the step it answers is done, and what lies on the same day with it.
      def follow(treatment)
        step = open_steps.find { |one| one.method_key == treatment.method_key && one.due_on <= treatment.done_on + EARLY } or return
        open_steps.select do |one|
          one.id == step.id || (one.kind == "disposal" && one.due_on == step.due_on)
        end.each { |one| one.update(done_on: treatment.done_on) }
        associations.clear
        ask
      end

      EARLY = 60 # days before a step's day that a treatment still answers it

      # A check was recorded: the look that was due nearest is done.
      def checked(on)
        open_steps.select do |step|
          step.kind == "check" && step.due_on <= on + EARLY
        end.min_by { |step| (step.due_on - on).to_i.abs }&.update(done_on: on)
        associations.clear
      end

      def leave
        db[:tasks].where(course_id: id, done_on: nil).delete
        update(left_at: Time.now.utc)
      end

      def resume
        db.transaction do
          patch.courses_dataset.live.each(&:leave)
          update(left_at: nil)
          ask
        end
      end
    end
  end
end
