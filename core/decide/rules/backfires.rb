# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Backfires = Rule.new(:backfires, about: :girdling, source: "common_practice") do |now, removal|
          no now.plant.removals.dig(removal.key, "text") if now.plant.removals.dig(removal.key, "backfires")
        end
      end
    end
  end
end
