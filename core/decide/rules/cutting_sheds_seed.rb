# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        CuttingShedsSeed = Rule.new(
          :cutting_sheds_seed,
          about: %i[cutting topping mulching grazing turf], looks: %i[stage],
          source: "common_practice",
          says: "Nothing is cut, mown, mulched or stripped with ripe seed on it."
        ) do |now, removal|
          next if removal.herbicide? || !now.seeding?

          no "Ripe seed is on it: cutting, machines, sods and coats shake it out and carry it off."
        end
      end
    end
  end
end
