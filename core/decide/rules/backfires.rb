# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Backfires = Rule.new(
          :backfires,
          about: :any, looks: %i[plant],
          source: "common_practice", force: :safety,
          says: "A method that makes this plant worse, by the plant's file, is never used."
        ) do |now, removal|
          no removal.told(now.plant)["text"] if removal.harms?(now.plant)
        end
      end
    end
  end
end
