# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        DroughtLeaf = Rule.new(:drought_leaf, about: :foliar, source: "common_practice") do |now|
          wait "Drought-stressed leaves take up little. After rain they do." if now.soil == :dry
        end
      end
    end
  end
end
