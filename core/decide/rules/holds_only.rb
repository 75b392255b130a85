# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        HoldsOnly = Rule.new(
          :holds_only,
          about: :any, looks: %i[plant purpose aim],
          source: "common_practice",
          says: "What only holds a plant down is right when it is asked as that, and no kill."
        ) do |now, removal|
          next unless removal.holds?(now.plant)

          if now.holding?
            go "It holds the plant down for now and kills none of it: " \
               "come back before it stands or seeds again."
          else
            no "It holds the plant down for a season and does not kill it."
          end
        end
      end
    end
  end
end
