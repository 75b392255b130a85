# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        RootedInRock = Rule.new(
          :rooted_in_rock,
          about: %i[pulling digging severing], looks: %i[footing plant water_m],
          source: "common_practice",
          says: "Roots in rock, wall or paving are neither pulled nor dug."
        ) do |now|
          next if now.in_water? || !%w[rock paving].include?(now.footing)

          no "Roots run under #{now.footing == "paving" ? "paving" : "rock or wall"}: they snap, " \
             "or the wall comes too. Girdle it, or treat the stem."
        end
      end
    end
  end
end
