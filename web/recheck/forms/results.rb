# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      module Forms
        # What became of the tags of a trial: numbers of those that live, and of those that nobody found.
        class Results < Form
          NUMBERS = /\A[\d\s,;]*\z/

          class Fields < Form::Contract
            params do
              required(:counted_on).filled(:date)
              optional(:alive).filled(:string, max_size?: 4000, format?: NUMBERS)
              optional(:unfound).filled(:string, max_size?: 4000, format?: NUMBERS)
            end
            rule(:counted_on).validate(:day_of_record)
            rule(:alive, :unfound) do
              both = %i[alive unfound].map { |field| values[field].to_s.scan(/\d+/) }.reduce(:&)
              key(:unfound).failure("holds #{both.first}, which lives as well") if both.any?
            end
          end

          # Counts them; false with errors.
          def store(run)
            return false unless ok?

            alive, unfound = %i[alive unfound].map { |field| values[field].to_s.scan(/\d+/).map { |n| n[0, 9].to_i } }
            run.count(alive:, unfound:, on: values[:counted_on])
            true
          rescue Core::BadInput => e
            failed(e.field, e.message)
            false
          end
        end
      end
    end
  end
end
