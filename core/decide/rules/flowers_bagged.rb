# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FlowersBagged = Rule.new(
          :flowers_bagged,
          about: %i[pulling digging], looks: %i[plant stage],
          source: "common_practice",
          says: "What ripens seed after it is pulled is bagged in flower."
        ) do |now|
          next unless now.plant.disposal["bag_in_flower"] && %i[flower green_seed].include?(now.stage)

          note "Pulled in flower it still ripens seed: bag it, do not lay it down."
        end
      end
    end
  end
end
