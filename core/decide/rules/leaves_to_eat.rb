# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        LeavesToEat = Rule.new(
          :leaves_to_eat,
          about: :grazing, looks: %i[phases],
          source: "common_practice",
          says: "Stock and birds are put on what is in leaf."
        ) do |now|
          wait "Nothing green is there to eat: stock would bare the ground for nothing." unless now.in_leaf?
        end
      end
    end
  end
end
