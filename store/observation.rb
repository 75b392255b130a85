# frozen_string_literal: true

module Thistle
  module Store
    # What was seen on a day: a name, settled or not, and the characters it rests on.
    class Observation < Sequel::Model(:observations)
      many_to_one :patch, class: "Thistle::Store::Patch"

      # Someone's word for what stands there, settled or not; the patch's state follows.
      def self.told(patch, **fields)
        create(patch_id: patch.id, **fields)
        patch.follow_records
      end

      # Adds an observation and gives the patch the name, if it is settled.
      def self.record(patch, key, note: nil)
        db.transaction do
          settlement = key.settlement
          created = create(patch_id: patch.id, seen_on: key.date, plant_key: settlement.plant.key,
                           settled: settlement.settled?, probability: key.top.probability,
                           characters: JSON.generate(key.observed), note:)
          patch.update(plant_key: settlement.plant.key) if settlement.settled? || patch.plant_key.nil?
          patch.follow_records
          created
        end
      end
    end
  end
end
