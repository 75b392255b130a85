# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        EnoughHands = Rule.new(
          :enough_hands,
          about: :any, looks: %i[crew],
          source: "common_practice", force: :safety,
          says: "Every method needs somebody. Some methods need two people or more."
        ) do |now, removal|
          if now.crew&.zero?
            no "Nobody is here to do it."
          elsif now.crew && now.crew < removal.crew
            no "It takes at least #{removal.crew} people."
          elsif now.crew.nil? && removal.crew > 1
            note "How many are you? It takes at least #{removal.crew}."
          end
        end
      end
    end
  end
end
