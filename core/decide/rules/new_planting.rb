# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        NewPlanting = Rule.new(
          :new_planting,
          about: %i[foliar burning grazing machine covering rolling], looks: %i[new_planting],
          source: "common_practice",
          says: "New plantings are weeded by hand alone."
        ) do |now|
          no "Young plantings are among it: by hand only, in moist soil, before seed." if now.new_planting
        end
      end
    end
  end
end
