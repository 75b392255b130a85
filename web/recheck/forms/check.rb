# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      module Forms
        # What came back: live stumps, stems that were missed, seedlings, cover left.
        class Check < Form
          class Fields < Form::Contract
            option :treated, default: -> {}

            params do
              required(:checked_on).filled(:date)
              required(:resprouts).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              required(:missed).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              required(:seedlings).filled(:integer, gteq?: 0, lteq?: 10_000_000)
              optional(:cover_class).filled(:integer, gteq?: 1, lteq?: 6)
              optional(:seed_fall).filled(:string, included_in?: Core::Recheck::SeedFall::ANSWERS.keys)
              optional(:people).filled(:string, max_size?: 400)
              optional(:note).filled(:string, max_size?: 2000)
            end
            rule(:checked_on).validate(:day_of_record)
            rule(:resprouts) do
              if treated && value && value > treated
                key.failure("is more than the #{treated} that were treated: count missed stems apart")
              end
            end
          end

          # A form filled from a record.
          def self.of(check, _units, today)
            new(typed(check.values.slice(*FIELDS)), units: Core::Units.new, today:)
          end

          FIELDS = %i[checked_on resprouts missed seedlings cover_class seed_fall people note].freeze

          def store(patch)
            Store::Check.record(patch, **columns) if ok?
          end

          # The columns as typed.
          def columns = FIELDS.to_h { |field| [field, values[field]] }
        end
      end
    end
  end
end
