# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SpreadsFragments = Rule.new(
          :spreads_fragments,
          about: %i[machine grazing], looks: %i[plant],
          source: "common_practice",
          says: "No machine or stock on what roots from pieces."
        ) do |now, removal|
          next if removal.is?(:grazing) && removal.told?(now.plant) # the file knows how it lives

          no "Every piece that falls off roots: nothing that chops or carries it." if now.plant.is?(:fragments_root)
        end
      end
    end
  end
end
