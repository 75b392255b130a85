# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        BlownSeed = Rule.new(
          :blown_seed,
          about: %i[pulling digging severing cutting topping turf seed_stop], looks: %i[stage plant day],
          source: "memory",
          says: "Ripe seed that flies is not touched in wind."
        ) do |now|
          next unless now.seeding? && now.plant.spread_by?("wind") && now.day&.wind

          still = 20 # km/h of a day (memory)
          wait "Wind of {wind:#{now.day.wind}} takes its ripe seed along: on a still day." if now.day.wind > still
        end
      end
    end
  end
end
