# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        BurnBeforeSeed = Rule.new(
          :burn_before_seed,
          about: :burning, looks: %i[stage phases plant],
          source: "common_practice",
          says: "Flowering stems are burnt green, before seed."
        ) do |now, removal|
          if now.seeding? || now.stage == :green_seed || now.phases.intersect?(%i[green_seed hardening])
            no "Seed is on it, green or ripe: the updraught carries it off."
          elsif removal.told(now.plant)&.key?("at") # its file gives the stage
            next
          elsif !%i[budding flower].include?(now.stage)
            wait "It is burnt in flower, while the stems are green and before seed."
          else
            go "In flower and green: the stems carry the fire and there is no seed to spread."
          end
        end
      end
    end
  end
end
