# frozen_string_literal: true

module Thistle
  module Core
    class Knowledge
      # What each method does to each invader, as the library has it: a table to read and to correct.
      class Effects
        WORDS = { kills: "kills", holds: "holds", harms: "harms", pointless: "pointless", unknown: "not known",
                  not_offered: "not offered" }.freeze

        def initialize(knowledge)
          @knowledge = knowledge
        end

        # [[plant, {method key => key of WORDS}]], methods in the library's order.
        def rows = @rows ||= @knowledge.invaders.sort_by(&:name).map { |plant| [plant, of(plant)] }

        # The table as lines of text with tabs between.
        def lines
          keys = @knowledge.methods_of_removal.keys
          told = rows.map { |plant, effects| [plant.key, *keys.map { |key| words(effects[key], key) }] }
          [["plant", *keys], *told].map { |row| row.join("\t") }
        end

        private

        # What is not known says what would have to be true.
        def words(effect, key)
          needs = @knowledge.removal(key).needs
          effect == :unknown ? "#{WORDS.fetch(effect)}: only if #{needs}" : WORDS.fetch(effect)
        end

        def of(plant) = @knowledge.methods_of_removal.transform_values { |removal| effect(plant, removal) }

        def effect(plant, removal)
          return told(plant, removal) if removal.told?(plant)
          return :holds if removal.is?(:marking, :reporting)
          return seed_stop(plant, removal) if removal.is?(:seed_stop)
          return :kills if removal.removes? && Removal::SIZES.any? { |size| removal.carried(plant, size) }
          return :pointless if cut_in_vain?(plant, removal) || elsewhere?(plant, removal)

          removal.suits.nil? || removal.suits?(plant) ? :unknown : :not_offered
        end

        # As the plant's own file says.
        def told(plant, removal)
          return :harms if removal.harms?(plant)
          return :pointless if removal.pointless?(plant)

          removal.removes? && removal.ends?(plant) ? :kills : :holds
        end

        # Seed of any plant that bears it is bagged; fruit is eaten only where the file says that it may be.
        def seed_stop(plant, removal) = plant.phase?(:ripe_seed) && !removal.is?(:harvest) ? :holds : :pointless

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
