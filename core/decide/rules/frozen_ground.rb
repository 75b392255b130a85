# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FrozenGround = Rule.new(
          :frozen_ground,
          about: %i[pulling digging severing turf], looks: %i[soil],
          source: "common_practice",
          says: "Frozen ground is neither pulled nor dug."
        ) do |now|
          wait "Frozen ground holds the root and breaks it." if now.soil == :frozen
        end
      end
    end
  end
end
