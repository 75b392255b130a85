# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        EveryPiece = Rule.new(
          :every_piece,
          about: %i[pulling digging severing rolling], looks: %i[plant],
          source: "common_practice",
          says: "If a plant roots from pieces, no piece is left behind."
        ) do |now|
          if now.plant.is?(:fragments_root)
            note "Every piece roots: count what comes out, sift, and leave nothing on the soil."
          end
        end
      end
    end
  end
end
