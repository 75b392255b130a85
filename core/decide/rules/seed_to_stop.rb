# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SeedToStop = Rule.new(
          :seed_to_stop,
          about: :seed_stop, looks: %i[stage plant],
          source: "common_practice",
          says: "Seed is stopped first, while there is seed."
        ) do |now|
          if %i[ripe_seed green_seed].include?(now.stage)
            go "Stop seed first: take every head on this visit."
          elsif now.plant.phase?(:ripe_seed)
            wait "No seed on it now."
          else
            no "This plant does not spread by seed here."
          end
        end
      end
    end
  end
end
