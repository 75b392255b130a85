# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        HarvestFirst = Rule.new(
          :harvest_first,
          about: :harvest, looks: %i[stage clean_site plant],
          source: "common_practice", force: :safety,
          says: "Fruit is eaten only from clean ground, and only when it is ripe."
        ) do |now|
          if now.clean_site.nil?
            no "Is it sure that nothing was ever sprayed or dumped here? Not answered: " \
               "nothing is eaten."
          elsif !now.clean_site then no "Not from ground that was sprayed or dumped on."
          elsif now.seeding? then go "Fruit is ripe: take all of it, then the plant."
          elsif now.plant.phase?(:ripe_seed) then wait "No ripe fruit on it now."
          else no "It bears nothing to eat."
          end
        end
      end
    end
  end
end
