# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what a patch's rank looks at around it (Core::Decide::Priority::Place): the likeliest way of spread, what
    # is worth most, the next building. Written beside the patch when a shape or a zone changes.
    class RankPlace
      WAY, FAR = 0.5, 150.0 # how much a zone must spread to count as a way of spread; m as far as rank looks

      # Does a patch's rank look at a zone?
      def self.looks_at?(zone) = zone.nature.spreads >= WAY || zone.nature.worth || zone.kind == "building"

      def initialize(zones)
        @zones = zones.select { |zone| self.class.looks_at?(zone) }.map { |zone| [zone, Surroundings.box(zone, FAR)] }
      end

      # As JSON; nil where nothing is near.
      def of(ground)
        near = near(ground)
        building_m = near.filter_map { |zone, m| m if zone.kind == "building" }.min
        found = { way: way(near), precious: precious(near), building_m: }.compact
        found.empty? ? nil : JSON.generate(found)
      end

      private

      # [[zone, m]] within reach.
      def near(ground)
        west, south, east, north = ground.bounds
        boxed = @zones.select { |_, (w, s, e, n)| w <= east && e >= west && s <= north && n >= south }
        boxed.map { |zone, _| [zone, ground.distance(zone.shape).round(1)] }.select { |_, m| m <= FAR }
      end

      def way(near)
        zone, m = near.select { |one, _| one.nature.spreads >= WAY }
                      .max_by { |one, at| one.nature.spreads * Math.exp(-at / Core::Decide::Priority::Parts::WAY_M) }
        zone && { label: zone.label_near, m:, spreads: zone.nature.spreads }
      end

      def precious(near)
        zone, m = near.select { |one, _| one.nature.worth }
                      .max_by { |one, at| one.nature.worth * Math.exp(-at / Core::Decide::Priority::Parts::PRECIOUS_M) }
        zone && { label: zone.label_near, m:, worth: zone.nature.worth }
      end
    end
  end
end
