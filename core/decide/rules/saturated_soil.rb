# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SaturatedSoil = Rule.new(
          :saturated_soil,
          about: %i[pulling digging severing], looks: %i[soil water_m plant],
          source: "common_practice",
          says: "Nothing is pulled or dug from saturated ground."
        ) do |now|
          if now.soil == :saturated && !now.in_water?
            wait "Saturated ground tears out with the root and packs under boots."
          end
        end
      end
    end
  end
end
