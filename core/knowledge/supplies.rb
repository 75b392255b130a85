# frozen_string_literal: true

module Thistle
  module Core
    class Knowledge
      # What a schema cannot see of actives, tools and ways to make ready: that a key of one file exists in another.
      class Supplies
        def initialize(knowledge)
          @knowledge = knowledge
        end

        # Goes through all of it. Raises Knowledge::Fault at the first that does not fit, with file and field.
        def call
          @knowledge.actives.each_value { |active| check_active(active) }
          @knowledge.kit.each { |key, told| known(tools(told), @knowledge.kit, "kit.yml", key) }
          @knowledge.readying.each do |key, told|
            known([told["as"]].compact, @knowledge.methods_of_removal, "readying.yml", key)
          end
        end

        private

        def check_active(active)
          known([active.form], @knowledge.formulations, "actives.yml", "#{active.key}/form")
          known([*active.suits.values.flatten, *active.weak], @knowledge.plants, "actives.yml", "#{active.key}/suits")
          known(active.suits.keys, active.uses, "actives.yml", "#{active.key}/suits")
        end

        def tools(told)
          [*told.fetch("sizes", {}).values, *told.fetch("with", []),
           *told.fetch("plants", []).map { |one| one["tool"] }]
        end

        def known(keys, table, file, field)
          lost = keys.find { |key| !table.key?(key) }
          raise Fault, "knowledge/#{file}: #{field}: “#{lost}” is not known" if lost
        end
      end
    end
  end
end
