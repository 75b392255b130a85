# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        LabelledForWater = Rule.new(
          :labelled_for_water,
          about: :herbicide, looks: %i[water_m aquatic_label plant],
          source: "common_practice", force: :legal,
          says: "At the water, only a product labelled for aquatic use."
        ) do |now|
          next unless now.near_water?
          if now.aquatic_label
            next note("At the water: only the product labelled for aquatic use, its own adjuvants, and the permit.")
          end

          where = now.water_m.nil? ? "The distance to water is not known" : "Water is in reach"
          no "#{where}: nothing but a product labelled for aquatic use, and none is at hand."
        end
      end
    end
  end
end
