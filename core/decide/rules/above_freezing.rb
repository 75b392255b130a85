# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        AboveFreezing = Rule.new(
          :above_freezing,
          about: :stem_herbicide, looks: %i[day],
          source: "common_practice",
          says: "Stem work waits for days above freezing."
        ) do |now, removal|
          next unless now.day

          wait "Stem work is for days above freezing." if now.day.tmax <= now.limits(removal).temperature["low"]
        end
      end
    end
  end
end
