# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SinglesOnly = Rule.new(
          :singles_only,
          about: :digging, looks: %i[cover],
          source: "common_practice",
          says: "A spade circle is for single plants, not for a colony."
        ) do |now, removal|
          next unless removal.key == "spade_circle" && now.cover && now.cover > 50

          no "A colony this dense is covered, rolled or stripped; the spade is for single plants."
        end
      end
    end
  end
end
