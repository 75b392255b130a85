# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        WaterWork = Rule.new(
          :water_work,
          about: :aquatic, looks: [],
          source: "common_practice", force: :safety,
          says: "Nobody works in the water alone."
        ) do |_now|
          note "Never alone; catch every fragment; dive flag and permits where the law asks for them."
        end
      end
    end
  end
end
