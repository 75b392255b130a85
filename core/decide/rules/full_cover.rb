# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FullCover = Rule.new(
          :full_cover,
          about: :any, looks: %i[full_cover plant],
          source: "common_practice", force: :safety,
          says: "What burns the skin is touched only under full cover, by people trained for it."
        ) do |now, removal|
          next if removal.is?(:reporting) || removal.key == "tag_and_return" ||
                  !now.plant.hazards.intersect?(%w[burning_sap rash])

          next note("Full cover on, skin washed at once, out of the sun.") if now.full_cover

          harm = now.plant.hazards.include?("rash") ? "raises a rash" : "burns the skin"
          no "It #{harm}: full cover and training, " \
             "#{now.full_cover.nil? ? "are there both? not answered" : "not both here"}."
        end
      end
    end
  end
end
