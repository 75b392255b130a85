# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Pointless = Rule.new(
          :pointless,
          about: :any, looks: %i[plant],
          source: "common_practice",
          says: "A method that does not work on this plant, by the plant's file, is not used."
        ) do |now, removal|
          no "Does not work: #{removal.told(now.plant)["text"]}" if removal.pointless?(now.plant)
        end
      end
    end
  end
end
