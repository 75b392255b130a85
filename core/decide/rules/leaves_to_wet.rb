# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        LeavesToWet = Rule.new(
          :leaves_to_wet,
          about: :foliar, looks: %i[phases],
          source: "common_practice",
          says: "Leaf spray needs green leaves."
        ) do |now|
          wait "No green leaf to take it up." unless now.in_leaf?
        end
      end
    end
  end
end
