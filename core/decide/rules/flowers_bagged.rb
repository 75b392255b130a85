# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FlowersBagged = Rule.new(:flowers_bagged, about: %i[pulling digging], source: "common_practice") do |now|
          next unless now.plant.disposal["bag_in_flower"] && %i[flower green_seed].include?(now.stage)

          note "Pulled in flower it still ripens seed: bag it, do not lay it down."
        end
      end
    end
  end
end
