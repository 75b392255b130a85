# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FloodPlain = Rule.new(
          :flood_plain,
          about: :covering, looks: %i[water_m plant],
          source: "common_practice",
          says: "No mulch or sheet where high water reaches."
        ) do |now|
          no "High water lifts mulch and carries fragments off." if now.near_water?
        end
      end
    end
  end
end
