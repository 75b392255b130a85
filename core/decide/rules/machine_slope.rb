# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        MachineSlope = Rule.new(
          :machine_slope,
          about: %i[machine], looks: %i[slope],
          source: "common_practice", force: :safety,
          says: "Machines keep off slopes."
        ) do |now|
          next if now.slope == "flat"

          no "How steep is it? Not known; a machine goes on flat ground only." if now.slope.nil?
          if now.slope
            no "On a #{now.slope == "steep" ? "steep slope" : "slope"} a machine slides and the opened soil runs."
          end
        end
      end
    end
  end
end
