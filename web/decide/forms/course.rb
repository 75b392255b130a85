# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Forms
        # Who begins a course, and why, where it is otherwise than advised.
        class Course < Form
          class Fields < Form::Contract
            option :otherwise, default: -> { false }
            params do
              required(:person).filled(:string, max_size?: 120)
              optional(:reason).filled(:string, max_size?: 1000)
            end
            rule(:reason) do
              if otherwise && value.to_s.empty?
                key.failure("is kept with the course: say why it is otherwise than advised")
              end
            end
          end
        end
      end
    end
  end
end
