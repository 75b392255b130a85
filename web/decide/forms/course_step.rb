# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Forms
        # A step of a course, edited or added.
        class CourseStep < Form
          class Fields < Form::Contract
            params do
              required(:due_on).filled(:date)
              required(:text).filled(:string, min_size?: 3, max_size?: 1000)
              optional(:kind).filled(:string, included_in?: Core::Decide::Course::KINDS.map(&:to_s))
            end
            rule(:due_on) do
              if value && (value - today).to_i.abs > 366 * 50
                key.failure("must be within fifty years")
              end
            end
          end

          def store(step)
            return unless ok?

            step.change(due_on: values[:due_on], text: values[:text],
                        until_on: step.until_on && [step.until_on, values[:due_on]].max,
                        source: step.text == values[:text] ? step.source : "own_records")
            true
          end

          def add_to(course)
            return unless ok?

            Store::CourseStep.db.transaction do
              Store::CourseStep.create(course_id: course.id, kind: values[:kind] || "check", due_on: values[:due_on],
                                       text: values[:text],
                                       source: "own_records")
              Store::FollowUps.settle(course.patch)
            end
            true
          end
        end
      end
    end
  end
end
