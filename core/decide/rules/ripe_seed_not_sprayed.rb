# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        RipeSeedNotSprayed = Rule.new(:ripe_seed_not_sprayed, about: :foliar, source: "common_practice") do |now|
          next unless now.seeding?

          no "Seed is ripe: spray kills the plant and the seed lives. Dig or pull it, and bag it."
        end
      end
    end
  end
end
