# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        TreesFirst = Rule.new(
          :trees_first,
          about: %i[pulling cutting foliar covering], looks: %i[plant freed_on date],
          source: "common_practice",
          says: "Trees are freed before the rest of a climber is fought."
        ) do |now|
          next unless now.plant.is?(:climbing) && now.plant.woody?

          freed = now.freed_on && now.date - now.freed_on < 730
          note "If it climbs trees, free them first: that saves them at once." unless freed
        end
      end
    end
  end
end
