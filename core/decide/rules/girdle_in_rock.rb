# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        GirdleInRock = Rule.new(
          :girdle_in_rock,
          about: :girdling, looks: %i[footing],
          source: "common_practice",
          says: "Girdling is for stems that no tool can pull."
        ) do |now|
          go "Roots in #{now.footing}: girdling needs no hold on the root." if %w[rock paving].include?(now.footing)
        end
      end
    end
  end
end
