# frozen_string_literal: true

module Thistle
  module Core
    class Knowledge
      # What a schema cannot see: that a key named in one file exists in another, that look-alikes can be
      # told apart by the characters they name, and that every source is listed.
      class CrossCheck
        # Phases that a plant must have for a character to be seen on it.
        SHOWN_BY = { "leaf" => %w[leaf], "flower" => %w[flower], "fruit" => %w[green_seed ripe_seed] }.freeze
        APART = 0.5 # share of specimens that a separator must tell apart

        def initialize(knowledge)
          @knowledge = knowledge
        end

        # Goes through all of it. Raises Knowledge::Fault at the first that does not fit, with file and field.
        def call
          @knowledge.plants.each_value { |plant| check_plant(plant) }
          @knowledge.methods_of_removal.each_value do |removal|
            known(removal.cautions, @knowledge.cautions, "methods/#{removal.key}.yml", "cautions")
            known(removal.kit, @knowledge.kit, "methods/#{removal.key}.yml", "kit")
            known([removal.follows].compact, @knowledge.methods_of_removal, "methods/#{removal.key}.yml", "follows")
          end
          check_schools
          Supplies.new(@knowledge).call
          check_looks
          check_zones
          check_aims
          Lands.new(@knowledge).call
          check_planting
          @knowledge.palette.each_value { |native| check_native(native) }
          @knowledge.returns.each do |key, row|
            known([row["source"]], @knowledge.sources, "returns.yml", key)
            known(row.fetch("methods", []), @knowledge.methods_of_removal, "returns.yml", key)
          end
        end

        private

        def check_plant(plant)
          file = "#{plant.invasive? ? "plants" : "natives"}/#{plant.key}.yml"
          known(plant.characters.keys, @knowledge.characters, file, "characters")
          plant.characters.each { |key, told| check_character(plant, character(key), told, file) }
          named = plant.removals.keys | plant.removals.values.filter_map { |told| told["follows"] }
          known(named, @knowledge.methods_of_removal, file, "methods")
          known(plant.hazards, @knowledge.cautions, file, "hazards")
          known(plant.disposal.values_at("clean", "seeding").compact, @knowledge.disposal, file, "disposal")
          known(plant.source_keys, @knowledge.sources, file, "source")
          plant.look_alikes.each { |pair| check_pair(plant, pair, file) }
        end

        # What aspects change, in their table and in plants' own files, is there.
        def check_looks
          @knowledge.aspects.each { |key, aspect| known(aspect.characters, @knowledge.characters, "aspects.yml", key) }
          @knowledge.groups.each { |key, group| known(group.plants, @knowledge.plants, "groups.yml", key) }
          @knowledge.plants.each_value do |plant|
            known(plant.aspects.keys, @knowledge.aspects, "#{plant.key}.yml", "aspects")
            plant.aspects.each_value do |looks|
              looks.each { |key, told| known(told.keys, character(key).states, "#{plant.key}.yml", "aspects/#{key}") }
            end
          end
        end

        def check_schools
          @knowledge.schools.each do |key, school|
            known([school.default], school.options, "schools.yml", "#{key}/default")
            known(school.plants || [], @knowledge.plants, "schools.yml", "#{key}/plants")
          end
          @knowledge.goals.each do |key, goal|
            known(goal.weights.keys, Decide::Priority::TERMS, "goals.yml", "#{key}/weights")
          end
        end

        def tags
          @tags ||= @knowledge.methods_of_removal.values.flat_map(&:tags).to_h { |tag| [tag, true] }
                              .merge(herbicide: true)
        end

        def check_aims
          @knowledge.aims.each_value do |aim|
            known(aim.minds.flat_map { |row| row["about"] }, tags, "aims.yml", "#{aim.key}/minds")
          end
          likes = @knowledge.methods_of_removal.values.filter_map(&:like)
          known(likes, @knowledge.methods_of_removal, "methods", "like")
        end

        def check_zones
          @knowledge.zone_kinds.each_value do |kind|
            known([kind.source], @knowledge.sources, "zones.yml", kind.key)
            known(kind.forbids || [], tags, "zones.yml", "#{kind.key}/forbids")
          end
        end

        def check_planting
          rows = @knowledge.planting.values.flatten.reject { |row| row["never"] }
          years = @knowledge.expect.values.flatten
          known(years.map { |row| row["source"] }, @knowledge.sources, "expect.yml", "source")
          { "readying.yml" => @knowledge.readying, "stock.yml" => @knowledge.stock }.each do |file, table|
            known(table.values.map { |row| row["source"] }, @knowledge.sources, file, "source")
          end
          known(rows.map { |row| row["source"] }, @knowledge.sources, "planting.yml", "source")
          marks = @knowledge.anchors.merge("season_start" => true, "season_end" => true)
          known(rows.flat_map { |row| row.values_at("from", "to").map { |moment| moment["anchor"] } }, marks,
                "planting.yml", "anchor")
        end

        def check_native(native)
          file = "#{native.key}.yml"
          known(native.sources, @knowledge.sources, file, "replant/source")
          known(native.looks_like, @knowledge.plants, file, "replant/looks_like")
          fault(file, "replant/ph", "low is above high") if native.ph.first > native.ph.last
          known(native.stock, @knowledge.stock, file, "replant/stock")
          known([native.plant_in], Replant::Sowing::TABLES, file, "replant/plant_in")
        end

        # A range belongs to a measured character, states to any other; and someone must be able to see it.
        def check_character(plant, character, told, file)
          field = "characters/#{character.key}"
          fault(file, field, "a measured character takes low and high") if character.measured? != told.key?("low")
          known(told.keys, character.states, file, field) unless character.measured?
          fault(file, field, "low is above high") if character.measured? && told["low"] > told["high"]
          phases = SHOWN_BY[character.shows]
          return unless phases&.none? { |phase| plant.phase?(phase) }

          fault(file, field, "nobody could see it: the plant has no phase #{phases.join(" or ")}")
        end

        def check_pair(plant, pair, file)
          known([pair["plant"]], @knowledge.plants, file, "look_alikes/plant")
          other = @knowledge.plants[pair["plant"]]
          pair["by"].each do |key|
            known([key], @knowledge.characters, file, "look_alikes/by")
            apart = character(key).apart(plant, other)
            fault(file, "look_alikes/by", "#{key} is not described for both plants") unless apart
            fault(file, "look_alikes/by", "#{key} hardly separates it from #{other.name}") if apart < APART
          end
        end

        def known(keys, table, file, field)
          lost = keys.map(&:to_s) - table.keys.map(&:to_s)
          fault(file, field, "#{lost.first} is not known") if lost.any?
        end

        def character(key) = @knowledge.characters.fetch(key)
        def fault(file, field, what) = raise(Fault, "knowledge/#{file}: #{field}: #{what}")
      end
    end
  end
end
