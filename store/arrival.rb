# frozen_string_literal: true

module Thistle
  module Store
    # A file that brought patches in: one transaction, with a list of what was taken and what was left, and why.
    class Arrival < Sequel::Model(:arrivals)
      many_to_one :property, class: "Thistle::Store::Property"
      one_to_many :patches, class: "Thistle::Store::Patch"

      # features: [Formats::Feature]. All that can stand is taken; the rest is listed with its reason.
      def self.take(property, filename, features, seen_on:)
        db.transaction do
          arrival = create(property_id: property.id, filename:, report: "[]")
          codes = property.next_codes
          rows = features.each_with_index.map { |feature, n| arrival.take_one(property, codes, feature, n + 1, seen_on) }
          arrival.update(report: JSON.generate(rows))
        end
      end

      def rows = JSON.parse(report)
      def taken = rows.select { |row| row["code"] }
      def left = rows.reject { |row| row["code"] }

      # Takes the whole arrival back.
      def undo
        db.transaction do
          patches_dataset.live.update(deleted_at: Time.now.utc)
          update(undone_at: Time.now.utc)
        end
      end

      def take_one(property, codes, feature, row, seen_on)
        shape = Core::Survey::Shape.new(feature.geometry)
        plant = Core::Knowledge.shipped.plants.values.find { |p| p.invasive? && feature.plant_named?(p) }
        patch = Patch.new(arrival_id: id, code: codes.peek, seen_on:, plant_key: plant&.key, note: feature.name)
        patch.property = property
        patch.radius_m = 2 if shape.kind == "point"
        patch.width_m = 2 if shape.kind == "line"
        patch.shape = shape
        patch.save
        codes.next
        { row:, name: feature.name, code: patch.code, kind: shape.kind }
      rescue Core::BadInput => e
        { row:, name: feature.name, why: e.message }
      end
    end
  end
end
