# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        WetOrFrozenBark = Rule.new(
          :wet_or_frozen_bark,
          about: :oil, looks: %i[day],
          source: "common_practice",
          says: "Oil does not go into wet or frozen bark."
        ) do |now|
          next unless now.day

          wait "Bark is wet or frozen: oil does not go in." if (now.day.rain || 1) >= 1 || now.day.tmax.negative?
        end
      end
    end
  end
end
