# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # How many plants of each kind went into the ground, where they are not as many as were planned.
        class Planted
          MOST = 10_000_000

          # {native key => count} of what was typed; {:"n-KEY" => words}.
          attr_reader :counts, :errors

          def initialize(params, plantings)
            @counts, @errors = {}, {}
            plantings.each do |one|
              text = params["n_#{one.native_key}"].to_s.strip
              next if text.empty?

              number = Core::Decimal.read(text)
              if number && number == number.round && number.between?(0, MOST)
                @counts[one.native_key] = number.round
              else
                @errors[:"n-#{one.native_key}"] = "is a whole number of plants, 0 or more"
              end
            end
          end
        end
      end
    end
  end
end
