# frozen_string_literal: true

module Thistle
  module Core
    class Knowledge
      # What each method does to each invader, as the library has it: a table to read and to correct.
      class Effects
        HALF = 50 # percent killed in a pass from which a method is said to kill, not to hold down (memory)
        WORDS = { kills: "kills", holds: "holds", harms: "harms", pointless: "pointless", unknown: "not known", not_offered: "not offered" }.freeze

        def initialize(knowledge)
          @knowledge = knowledge
        end

        # [[plant, {method key => key of WORDS}]], methods in the library's order.
        def rows = @rows ||= @knowledge.invaders.sort_by(&:name).map { |plant| [plant, of(plant)] }

        # The table as lines of text with tabs between.
        def lines
          keys = @knowledge.methods_of_removal.keys
          [["plant", *keys], *rows.map { |plant, effects| [plant.key, *keys.map { |key| WORDS.fetch(effects[key]) }] }].map { |row| row.join("\t") }
        end

        private

        def of(plant) = @knowledge.methods_of_removal.transform_values { |removal| effect(plant, removal) }

        def effect(plant, removal)
          return told(plant, removal) if plant.removals.key?(removal.key)
          return :holds if removal.is?(:marking, :reporting)
          return :kills if removal.removes? && Removal::SIZES.any? { |size| removal.carried(plant, size) }
          return :pointless if cut_in_vain?(plant, removal) || elsewhere?(plant, removal)

          removal.suits.nil? || removal.suits?(plant) ? :unknown : :not_offered
        end

        # As the plant's own file says.
        def told(plant, removal)
          return :harms if plant.removals.dig(removal.key, "backfires")

          removal.removes? && removal.kill(plant)["likely"] >= HALF ? :kills : :holds
        end

        # Cutting alone, for what sprouts again.
        def cut_in_vain?(plant, removal) = removal.is?(:cutting, :grazing) && !removal.herbicide? && plant.resprouts?

        # Water work on land, and freeing trees of what does not climb.
        def elsewhere?(plant, removal)
          (removal.is?(:aquatic) && !plant.aquatic?) || (removal.is?(:freeing) && !plant.is?(:climbing))
        end
      end
    end
  end
end
