# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        GreenCanes = Rule.new(
          :green_canes,
          about: :stem_herbicide, looks: %i[plant phases],
          source: "common_practice",
          says: "Canes and stems that die back are treated while they are green."
        ) do |now|
          next if now.plant.woody? || now.in_leaf?

          wait "Its stems are dead: nothing goes down to the root. Treat them while they stand green."
        end
      end
    end
  end
end
