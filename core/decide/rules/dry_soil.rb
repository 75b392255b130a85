# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        DrySoil = Rule.new(
          :dry_soil,
          about: :pulling, looks: %i[soil water_m plant],
          source: "common_practice",
          says: "Nothing is pulled from dry soil by hand; a lever takes longer."
        ) do |now, removal|
          next if now.soil != :dry || now.in_water?

          if removal.is?(:levering)
            note "Dry soil holds on: the lever serves and takes half as long again. " \
                 "Look at each root for what snapped."
          else
            wait "Dry soil snaps roots and leaves the live part behind. Pull the day after rain."
          end
        end
      end
    end
  end
end
