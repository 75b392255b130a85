# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # A stand that seed is gathered from: its native, how many plants, how many seeds on each.
        class Stand < Form
          class Fields < Form::Contract
            params do
              required(:native).filled(:string, included_in?: Core::Knowledge.shipped.palette.keys)
              required(:plants).filled(:integer, gt?: 0, lteq?: 10_000_000)
              required(:each).filled(:integer, gt?: 0, lteq?: 10_000_000)
            end
          end
        end
      end
    end
  end
end
