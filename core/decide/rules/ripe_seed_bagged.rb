# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        RipeSeedBagged = Rule.new(
          :ripe_seed_bagged,
          about: %i[pulling digging severing cutting freeing covering], looks: %i[stage],
          source: "common_practice",
          says: "Ripe seed is bagged before anything is moved."
        ) do |now, removal|
          next unless now.seeding? && removal.tags != %i[cutting felling]

          note "Ripe seed: bag the heads before anything is moved, then the rest. Nothing lies on the ground."
        end
      end
    end
  end
end
