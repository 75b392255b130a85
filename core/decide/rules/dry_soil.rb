# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        DrySoil = Rule.new(
          :dry_soil,
          about: :pulling, looks: %i[soil water_m plant],
          source: "common_practice",
          says: "Nothing is pulled from dry soil."
        ) do |now|
          wait "Dry soil snaps roots and leaves the live part behind. Pull the day after rain." if now.soil == :dry && !now.in_water?
        end
      end
    end
  end
end
