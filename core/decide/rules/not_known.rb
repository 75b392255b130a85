# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        NotKnown = Rule.new(
          :not_known,
          about: :any, looks: %i[plant belongs size aim],
          source: "common_practice", force: :safety,
          says: "If the plant's file does not name a method, ask someone first, unless the way it grows supports it."
        ) do |now, removal|
          next if !removal.removes? || (now.at_home? && !now.nuisance?) || removal.told?(now.plant)

          carried = removal.carried(now.plant, now.size)
          if carried then note "The plant's file does not name this method. The way it grows supports it: #{carried}."
          else
            ask "Not known for this plant. It would work if #{removal.needs}. Ask someone who has used it on " \
                "this plant."
          end
        end
      end
    end
  end
end
