# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        StockPoisoned = Rule.new(
          :stock_poisoned,
          about: :grazing, looks: %i[plant],
          source: "common_practice", force: :safety,
          says: "No stock on poisonous plants."
        ) do |now|
          if now.plant.hazards.intersect?(%w[poison burning_sap poison_eaten stock_poison]) then no "It poisons stock."
          elsif now.plant.hazards.include?("horse_poison") then note "Never horses: they die of it."
          end
        end
      end
    end
  end
end
