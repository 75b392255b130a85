# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        CuttingIsNoKill = Rule.new(
          :cutting_is_no_kill,
          about: %i[cutting felling grazing], looks: %i[plant],
          source: "common_practice",
          says: "Cutting alone is no kill for what sprouts again."
        ) do |now, removal|
          next if removal.herbicide? || removal.is?(:turf) || removal.told_to_kill?(now.plant) ||
                  removal.holds?(now.plant)

          if now.plant.resprouts?
            no "#{removal.is?(:grazing) ? "Grazing" : "Cutting"} alone is not a kill: " \
               "the stump or roots resprout with more stems."
          end
        end
      end
    end
  end
end
