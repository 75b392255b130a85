# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        RainSoon = Rule.new(
          :rain_soon,
          about: :herbicide, looks: %i[day hours next_days],
          source: "common_practice", force: :legal,
          says: "No herbicide with rain inside the rainfast time."
        ) do |now, removal|
          rain = now.kept_off_by(removal, :raining, :rain_coming) or next
          if rain.unknown then wait "How much rain comes is not known, and rain washes it off."
          else wait "Rain inside the rainfast time would wash it off."
          end
        end
      end
    end
  end
end
