# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        DroughtLeaf = Rule.new(
          :drought_leaf,
          about: :foliar, looks: %i[soil],
          source: "common_practice",
          says: "Drought-stressed leaves are not sprayed."
        ) do |now|
          wait "Drought-stressed leaves take up little. After rain they do." if now.soil == :dry
        end
      end
    end
  end
end
