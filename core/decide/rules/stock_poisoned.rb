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
          no "It poisons stock." if now.plant.hazards.intersect?(%w[poison burning_sap])
        end
      end
    end
  end
end
