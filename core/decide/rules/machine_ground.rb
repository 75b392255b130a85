# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        MachineGround = Rule.new(
          :machine_ground,
          about: %i[machine], looks: %i[soil],
          source: "common_practice",
          says: "Machines keep off soft ground."
        ) do |now|
          wait "Wheels and tracks pack soft ground." if %i[wet saturated].include?(now.soil)
        end
      end
    end
  end
end
