# frozen_string_literal: true

module Thistle
  module Store
    # Model: one step of a course: what, when, done or not.
    class CourseStep < Sequel::Model(:course_steps)
      many_to_one :course, class: "Thistle::Store::Course"

      def removal = method_key && Core::Knowledge.shipped.methods_of_removal[method_key]
      def done? = !done_on.nil?

      # What Today says of it.
      def asks = removal ? "Course: #{removal.name.downcase}" : text

      # Changes it; what the course asks for follows.
      def change(**columns)
        db.transaction do
          update(**columns)
          FollowUps.settle(course.patch)
        end
        refresh
      end

      # A person says that it is done, or that it is not; said again, the records decide.
      def toggle(today)
        return change(said: nil, done_on: nil) if said

        done? ? change(said: "open", done_on: nil) : change(said: "done", done_on: today)
      end
    end
  end
end
