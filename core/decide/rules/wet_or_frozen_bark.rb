# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        WetOrFrozenBark = Rule.new(
          :wet_or_frozen_bark,
          about: :oil, looks: %i[day hours],
          source: "common_practice",
          says: "Oil does not go into wet or frozen bark."
        ) do |now, removal|
          wet = now.kept_off_by(removal, :wet_leaf, :raining)
          wait "Bark is wet or frozen: oil does not go in." if wet
        end
      end
    end
  end
end
