# frozen_string_literal: true

module Thistle
  module Store
    # Model: what was seen on a day: a name, settled or not, and the characters it rests on.
    class Observation < Sequel::Model(:observations)
      many_to_one :patch, class: "Thistle::Store::Patch"
      include Amendable

      def on = seen_on

      # Someone's word for what stands there, settled or not; the patch's state follows.
      def self.told(patch, **fields)
        create(patch_id: patch.id, **fields)
        patch.update(group_key: nil) if fields[:settled]
        FollowUps.settle(patch)
      end

      # Adds an observation and gives the patch the name, if it is settled.
      def self.record(patch, key, note: nil)
        db.transaction do
          settlement = key.settlement
          group = settlement.group
          settled = settlement.settled? || !group.nil?
          created = create(patch_id: patch.id, seen_on: key.date, plant_key: settlement.plant.key, settled:,
                           group_key: group&.key, probability: probability(settlement, key),
                           characters: JSON.generate(key.observed), note:)
          patch.update(plant_key: settlement.plant.key, group_key: group&.key) if settled || patch.plant_key.nil?
          FollowUps.settle(patch)
          created
        end
      end

      def self.probability(settlement, key)
        settlement.group&.then { |group| settlement.probability_of(group) } || key.top.probability
      end
      private_class_method :probability

      AMOUNTS = %i[infested_m2 cover_class cover_percent density_m2 height_cm stems_by_size plants stage].freeze

      # Did it say how much stood there?
      def amounts? = !stems.nil? || AMOUNTS.any? { |column| self[column] }

      private

      def follow
        patch.figures.follow_name
        patch.figures.follow_amounts
        super
        patch.property.year_changed
      end
    end
  end
end
