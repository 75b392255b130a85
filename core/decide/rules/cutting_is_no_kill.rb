# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        CuttingIsNoKill = Rule.new(:cutting_is_no_kill, about: %i[cutting felling], source: "common_practice") do |now, removal|
          next if removal.herbicide?

          if now.plant.resprouts?
            no "Cutting alone is not a kill: what is left of it answers with more stems."
          elsif now.plant.removals.dig(removal.key, "backfires")
            no now.plant.removals.dig(removal.key, "text")
          end
        end
      end
    end
  end
end
