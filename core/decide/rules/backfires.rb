# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Backfires = Rule.new(
          :backfires,
          about: :any, looks: %i[plant],
          source: "common_practice", force: :safety,
          says: "What a plant's own file says backfires is not done to it, whatever the method."
        ) do |now, removal|
          no removal.told(now.plant)["text"] if removal.harms?(now.plant)
        end
      end
    end
  end
end
