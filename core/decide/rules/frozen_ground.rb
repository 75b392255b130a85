# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FrozenGround = Rule.new(:frozen_ground, about: %i[pulling digging], source: "common_practice") do |now|
          wait "Frozen ground holds the root and breaks it." if now.soil == :frozen
        end
      end
    end
  end
end
