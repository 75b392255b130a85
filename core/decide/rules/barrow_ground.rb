# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        BarrowGround = Rule.new(
          :barrow_ground,
          about: :covering, looks: %i[soil plant water_m],
          source: "common_practice",
          says: "Chips and sheets wait until the ground is no longer wet."
        ) do |now, _removal|
          next if now.in_water? || !%i[wet saturated].include?(now.soil)

          wait "Barrows and boots pack wet ground."
        end
      end
    end
  end
end
