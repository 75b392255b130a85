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
        ) do |now, removal|
          if now.plant.aquatic? && removal.told?(now.plant)
            note "A mat on the bottom is weighed down all round, marked, and lifted again; " \
                 "what may be laid in water is asked first."
          elsif now.near_water? then no "High water lifts mulch and carries fragments off."
          end
        end
      end
    end
  end
end
