# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        AboveFreezing = Rule.new(
          :above_freezing,
          about: :stem_herbicide, looks: %i[day hours],
          source: "common_practice",
          says: "Stem work waits for days above freezing."
        ) do |now, removal|
          cold = now.kept_off_by(removal, :temperature)
          wait "Stem work is for days above freezing." if cold&.value && cold.value <= cold.limit["low"]
        end
      end
    end
  end
end
