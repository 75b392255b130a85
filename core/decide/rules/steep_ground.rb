# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SteepGround = Rule.new(
          :steep_ground,
          about: %i[digging covering], looks: %i[slope],
          source: "common_practice",
          says: "Steep ground is neither dug nor covered."
        ) do |now, removal|
          next unless now.slope == "steep"

          no removal.is?(:covering) ? "Chips slide off steep ground." : "Digging opens steep ground to erosion. Cut, " \
            "or pull single plants."
        end
      end
    end
  end
end
