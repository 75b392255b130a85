# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Forms
        # What a specialist said of a report.
        class Answer < Form
          class Fields < Form::Contract
            params do
              required(:answer_key).filled(:string)
              required(:answered_by).filled(:string, max_size?: 200)
              required(:answered_on).filled(:date)
              optional(:answer_note).filled(:string, max_size?: 2000)
            end
            rule(:answered_on).validate(:day_of_record)
            rule(:answer_key) do
              key.failure("is not a plant in the library") unless Core::Knowledge.shipped.plants.key?(value)
            end
          end

          def store(report) = ok? && report.settle(**values).then { true }
        end
      end
    end
  end
end
