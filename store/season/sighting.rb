# frozen_string_literal: true

module Thistle
  module Store
    # Model: what someone saw of the year at a property: a mark of the year, a plant's phase, the feel of the soil.
    class Sighting < Sequel::Model(:sightings)
      many_to_one :property, class: "Thistle::Store::Property"

      KINDS = %w[anchor phase soil].freeze

      dataset_module do
        def live = where(deleted_at: nil).order(:seen_on, :id)
      end

      # Adds one; the property's year is worked out anew.
      def self.record(property, **fields)
        db.transaction do
          sighting = create(property_id: property.id, **fields)
          property.year_changed
          sighting
        end
      end

      # What it is about: of sightings that share this the one told last counts, and without it the one before.
      def subject(latitude)
        kind == "soil" ? [kind, seen_on] : [kind, plant_key, said, Core::Season::Year.start_of(seen_on, latitude)]
      end

      def self.looked_at(property)
        Observation.where(Sequel[:observations][:stage] => TELLING, Sequel[:observations][:deleted_at] => nil,
                          settled: true)
                   .exclude(Sequel[:observations][:plant_key] => nil)
                   .join(:patches, { id: :patch_id, property_id: property.id, deleted_at: nil }, table_alias: :p)
                   .select_map([Sequel[:observations][:plant_key], Sequel[:observations][:stage],
                                Sequel[:observations][:seen_on], :code])
                   .map do |plant, stage, on, code|
                     Core::Season::Seen::Phase.new(plant:, phase: stage.to_sym, on:, by: code, began: false)
                   end
      end
      private_class_method :looked_at

      def phase
        Core::Season::Seen::Phase.new(plant: plant_key, phase: said.to_sym, on: seen_on, by: person, began:)
      end

      def take_back
        update(deleted_at: Time.now.utc)
        property.year_changed
      end

      def bring_back
        update(deleted_at: nil)
        property.year_changed
      end

      # Stages of looks at patches that say how far the plant is here, not only that one is young.
      TELLING = %w[flower green_seed ripe_seed].freeze

      # All of a property's as core reads them; the stages of its patches that someone looked at are among them.
      def self.seen(property)
        told = live.where(property_id: property.id).order(:id)
                   .to_h { |sighting| [sighting.subject(property.latitude), sighting] }
        rows = told.values.group_by(&:kind)
        Core::Season::Seen.new(
          anchors: rows.fetch("anchor", [])
                       .map { |s| Core::Season::Seen::Mark.new(key: s.said.to_sym, on: s.seen_on, by: s.person) },
          phases: (rows.fetch("phase", []).map(&:phase) + looked_at(property)).sort_by(&:on),
          soils: rows.fetch("soil", []).to_h { |s| [s.seen_on, s.said.to_sym] }
        )
      end
    end
  end
end
