# frozen_string_literal: true

module Thistle
  module Store
    # One step of a course: what, when, done or not.
    class CourseStep < Sequel::Model(:course_steps)
      many_to_one :course, class: "Thistle::Store::Course"

      def removal = method_key && Core::Knowledge.shipped.methods_of_removal[method_key]
      def done? = !done_on.nil?
    end
  end
end
