# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        CuttingShedsSeed = Rule.new(:cutting_sheds_seed, about: :cutting, source: "common_practice") do |now, removal|
          next if removal.herbicide? || !now.seeding?

          no "Cutting now shakes ripe seed out and carries it off."
        end
      end
    end
  end
end
