# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      module Forms
        # When a property counts a patch as over.
        class Closing < Form
          class Fields < Form::Contract
            params do
              required(:close_below).filled(:float, gteq?: 0.1, lteq?: 30)
              required(:close_years).filled(:string, included_in?: Store::Property::CLOSE_YEARS.keys)
            end
          end

          # A form filled with what counts.
          def self.of(property, units, today)
            untouched({ "close_below" => (property.closes_below * 100).round(2).to_s.delete_suffix(".0"),
                        "close_years" => property.closes_after }, units:, today:)
          end

          # Keeps the rule, and has quiet and closed patches follow it; false with errors.
          def store(property)
            return false unless ok?

            property.update(close_below: values[:close_below] / 100, close_years: values[:close_years])
            Store::ClosingRule.new(property).follow
            true
          end
        end
      end
    end
  end
end
