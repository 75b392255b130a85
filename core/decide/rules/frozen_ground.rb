# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FrozenGround = Rule.new(
          :frozen_ground,
          about: %i[pulling digging severing turf foliar], looks: %i[soil plant water_m],
          source: "common_practice",
          says: "Frozen ground is neither pulled, dug nor stripped, and no leaf is sprayed over it."
        ) do |now, removal|
          next if now.soil != :frozen || now.in_water?

          if removal.is?(:foliar) then wait "The ground is frozen: leaves send nothing down."
          else wait "Frozen ground holds the root and breaks it."
          end
        end
      end
    end
  end
end
