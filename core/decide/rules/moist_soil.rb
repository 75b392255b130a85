# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        MoistSoil = Rule.new(
          :moist_soil,
          about: :pulling, looks: %i[soil water_m plant],
          source: "common_practice",
          says: "Moist soil is the day for pulling."
        ) do |now|
          go "The soil is #{now.soil}: roots lift whole." if %i[moist wet].include?(now.soil) && !now.in_water?
        end
      end
    end
  end
end
