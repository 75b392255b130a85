# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        HoldTheSlope = Rule.new(
          :hold_the_slope,
          about: %i[pulling digging severing cutting foliar burning], looks: %i[slope],
          source: "common_practice",
          says: "On slopes, what holds the soil stays, and something goes back at once."
        ) do |now|
          if %w[slope steep].include?(now.slope)
            note "On a slope keep every desirable plant, and put something back in the same season."
          end
        end
      end
    end
  end
end
