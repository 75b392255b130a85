# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        BurnBeforeSeed = Rule.new(
          :burn_before_seed,
          about: :burning, looks: %i[stage phases plant],
          source: "common_practice",
          says: "Flowering stems are burned green, before seed."
        ) do |now, removal|
          at = removal.told(now.plant)&.fetch("at", nil)
          green = now.phases.intersect?(%i[green_seed hardening]) && !at&.include?("green_seed")
          if now.seeding? || green
            no "Seed is on it, green or ripe: the updraught carries it off."
          elsif at # its file gives the stage
            next
          elsif !%i[budding flower].include?(now.stage)
            wait "It is burned in flower, while the stems are green and before seed."
          else
            go "In flower and green: the stems carry the fire and there is no seed to spread."
          end
        end
      end
    end
  end
end
