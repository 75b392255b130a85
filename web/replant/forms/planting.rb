# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # What goes back into a patch, as it is corrected: how much, between which days, and when it was done.
        class Planting < Form
          class Fields < Form::Contract
            params do
              required(:area).filled(:float, gt?: 0, lteq?: 100_000_000)
              optional(:plugs).filled(:integer, gteq?: 0, lteq?: 10_000_000)
              optional(:seed).filled(:float, gteq?: 0, lteq?: 10_000_000)
              required(:from_on).filled(:date)
              required(:to_on).filled(:date)
              optional(:done_on).filled(:date)
            end
            rule(:to_on, :from_on) do
              if values[:from_on] && values[:to_on] && values[:to_on] < values[:from_on]
                key.failure("is before it begins")
              end
            end
            rule(:done_on).validate(:day_of_record)
            rule(:plugs, :seed) do
              key(:plugs).failure("or the seed: say how much goes back") unless values[:plugs] || values[:seed]
            end
          end

          def self.of(planting, units, today)
            columns = planting.values.slice(:plugs, :from_on, :to_on, :done_on)
            amounts = { area: units.from_si(:area, planting.area_m2).round(1),
                        seed: units.from_si(:mass, planting.seed_g)&.round(1) }
            new(typed({ **columns, **amounts }), units:, today:)
          end

          def columns
            plain = %i[plugs from_on to_on done_on].to_h { |field| [field, values[field]] }
            { **plain, area_m2: si(:area, :area), seed_g: si(:seed, :mass) }
          end
        end
      end
    end
  end
end
