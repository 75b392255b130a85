# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Invaders that are handled alike (knowledge/groups.yml): where nobody can tell which it is, the group is a name.
      # plants: their keys.
      Group = Value.define(:key, :name, :plants, :text, :source) do
        def include?(plant) = plants.include?(plant.key)
        # Is each of them a weed in a region?
        def weeds_in?(region, knowledge) = plants.all? { |key| knowledge.plant(key).weed_in?(region) }
      end

      # What it is called.
      class Group
        NUMBERS = { 2 => "two", 3 => "three", 4 => "four", 5 => "five" }.freeze

        # "Bush honeysuckle"
        def short = name.sub(/\Aan? /, "").capitalize
        # Hazards of any of them: keys of knowledge/cautions.yml.
        def hazards(knowledge) = plants.flat_map { |key| knowledge.plant(key).hazards }.uniq

        # "a bush honeysuckle, whichever of the four"
        def said = "#{name}, whichever of the #{NUMBERS.fetch(plants.size)}"
      end
    end
  end
end
