# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SproutsFromCrown = Rule.new(
          :sprouts_from_crown,
          about: :severing, looks: %i[plant],
          source: "common_practice",
          says: "Cutting below the crown is for plants that sprout only above it."
        ) do |now, removal|
          if now.plant.is?(:root_suckers, :fragments_root) && !removal.told_to_kill?(now.plant)
            no "What is left of the root sprouts again: cutting below the crown does not end it."
          elsif now.plant.is?(:layers)
            note "Stems root where they touch the ground: find those too."
          end
        end
      end
    end
  end
end
