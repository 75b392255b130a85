# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        RainSoon = Rule.new(
          :rain_soon,
          about: :herbicide, looks: %i[next_days],
          source: "common_practice", force: :legal,
          says: "No herbicide with rain inside the rainfast time."
        ) do |now|
          if now.rain_soon && now.rain_soon >= 1
            wait "Rain is forecast inside the usual rainfast time and would wash it off."
          end
        end
      end
    end
  end
end
