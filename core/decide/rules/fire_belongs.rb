# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FireBelongs = Rule.new(
          :fire_belongs,
          about: :burning, looks: %i[fire_adapted climate plant],
          source: "common_practice", force: :safety,
          says: "Burn only where the vegetation has always burned, and never in a desert. Never burn a plant that " \
                "fire helps, or one with poisonous smoke."
        ) do |now|
          if now.plant.hazards.include?("poison") then no "Its smoke carries the poison."
          elsif now.plant.is?(:fire_wakes) then no "Fire wakes its seed."
          elsif now.plant.form == :grass && now.plant.is?(:root_suckers, :fragments_root)
            no "It comes back from its rhizomes before anything else, and burns hotter the next time."
          elsif now.climate == "desert"
            no "A desert that never carried fire is harmed by it, " \
               "and the grass spreads."
          elsif now.fire_adapted.nil? then no "Has the vegetation here always burned? Not answered: nothing is lit."
          elsif !now.fire_adapted then no "This ground's own vegetation never burned: fire harms it."
          end
        end
      end
    end
  end
end
