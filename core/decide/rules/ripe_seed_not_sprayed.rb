# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        RipeSeedNotSprayed = Rule.new(
          :ripe_seed_not_sprayed,
          about: :foliar, looks: %i[stage phases],
          source: "common_practice",
          says: "Seed that is ripe or hardening outlives spray."
        ) do |now|
          next unless now.seeding? || now.stage == :green_seed # a seedling bears none

          unless now.seeding? || now.phases.include?(:hardening)
            next note("Green seed: crush one. While it is soft spray still serves; once it is hard, " \
                      "dig or pull and bag.")
          end

          no "Seed is #{now.seeding? ? "ripe" : "hardening"}: spray kills the plant and the seed lives. " \
             "Dig or pull it, and bag it."
        end
      end
    end
  end
end
