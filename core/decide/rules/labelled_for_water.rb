# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        LabelledForWater = Rule.new(
          :labelled_for_water,
          about: :herbicide, looks: %i[water_m aquatic_label plant],
          source: "common_practice", force: :legal,
          says: "At the water, only a product whose label allows aquatic use."
        ) do |now, removal|
          next unless now.near_water?
          if now.for_water?(removal)
            next note("At the water: only a product whose label allows aquatic use, its own adjuvants, and a permit.")
          end

          where = now.water_m.nil? ? "The distance to water is not known" : "Water is in reach"
          none = now.aquatic_label.is_a?(Hash) ? "the one in use here is not" : "none is at hand"
          no "#{where}: nothing but a product whose label allows aquatic use, and #{none}."
        end
      end
    end
  end
end
