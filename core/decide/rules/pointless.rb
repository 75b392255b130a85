# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Pointless = Rule.new(
          :pointless,
          about: :any, looks: %i[plant],
          source: "common_practice",
          says: "What a plant's own file says is done in vain is not worth a day."
        ) do |now, removal|
          no "In vain: #{removal.told(now.plant)["text"]}" if removal.pointless?(now.plant)
        end
      end
    end
  end
end
