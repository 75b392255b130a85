# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        CarrierWater = Rule.new(
          :carrier_water,
          about: :herbicide, looks: %i[schools],
          source: "common_practice", force: :school,
          says: "What water a mix in water is made with, by the school of this ground."
        ) do |now, removal|
          next if removal.is?(:oil)

          water = { "soft" => "distilled or soft water: hard water ties up glyphosate",
                    "tap" => "tap water: where it is hard it ties up glyphosate" }
          note "Mixed with #{water.fetch(now.school(:carrier))}."
        end
      end
    end
  end
end
