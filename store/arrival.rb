# frozen_string_literal: true

module Thistle
  module Store
    # A file that brings patches in. First a draft: its rows are kept, its columns mapped, and a dry run says of each
    # row whether it will be added, changed, is doubled, the same, or refused. Then it is taken in one transaction,
    # whole or not at all, and can be taken back.
    class Arrival < Sequel::Model(:arrivals)
      many_to_one :property, class: "Thistle::Store::Property"
      one_to_many :patches, class: "Thistle::Store::Patch"
      one_to_many :arrival_rows, class: "Thistle::Store::ArrivalRow", order: :row

      SLICE = 500
      VERDICTS = { "add" => "added", "change" => "changed", "double" => "doubled", "absent" => "kept as not there",
                   "same" => "the same already", "refuse" => "refused" }.freeze

      # features: hashes of geometry, name, properties, notes. Nothing reaches the map yet.
      def self.draft(property, filename, features, format: nil)
        db.transaction do
          headers = features.flat_map { |f| f.properties.keys }.uniq
          arrival = create(property_id: property.id, filename:, format:, report: "[]", status: "draft", total: features.size,
                           mapping: JSON.generate(Mapping.for(headers)))
          features.each_slice(SLICE).with_index do |slice, n|
            Bulk.insert(:arrival_rows, slice.each_with_index.map { |f, m| row_of(arrival, f, (n * SLICE) + m + 1) })
          end
          arrival
        end
      end

      def self.row_of(arrival, feature, row)
        { arrival_id: arrival.id, row:, name: feature.name, geometry: feature.geometry && JSON.generate(feature.geometry),
          properties: JSON.generate(feature.properties || {}), notes: feature.notes&.join("; ") }
      rescue JSON::GeneratorError
        { arrival_id: arrival.id, row:, name: feature.name.to_s.scrub, geometry: nil, properties: "{}", notes: nil }
      end
      private_class_method :row_of

      def columns = JSON.parse(mapping || "{}")
      def reading = Core::Survey::Columns::Reading.new(columns, Core::Knowledge.shipped)
      def counts = @counts ||= arrival_rows_dataset.unordered.group_and_count(:verdict).as_hash(:verdict, :count)
      def draft? = status == "draft"
      def busy? = %w[looking taking].include?(status)
      def taken? = status == "taken" && undone_at.nil?

      # Remembers the mapping for files of the same columns.
      def map(chosen, **ways)
        Mapping.remember(columns.keys, chosen)
        update(mapping: JSON.generate(chosen), **ways)
      end

      # What would happen, row by row, written beside each row; nothing else changes. Told how far it is through a block.
      def dry_run(seen_on:, &progress)
        @counts = nil
        db.transaction { DryRun.new(self, seen_on:).call(&progress) }
        update(status: "draft")
      end

      # Takes it all in one transaction. Told how far it is through a block, now and then.
      def take(seen_on:, &progress)
        update(status: "taking", done: 0, fault: nil)
        Taking.new(self, seen_on:).call(&progress)
        update(status: "taken", done: total)
      rescue StandardError => e
        update(status: "failed", fault: e.is_a?(Core::BadInput) ? e.message : "Something went wrong on our side (#{e.class}). Nothing was taken.")
        raise unless e.is_a?(Core::BadInput)
      end

      # Takes the whole arrival back: what was added goes, what was changed is as it was. Raises BadInput when something
      # that it changed has been changed since.
      def undo
        db.transaction do
          Change.undoable.where(id: arrival_rows_dataset.exclude(change_id: nil).unordered.select(:change_id)).all.each(&:take_back)
          patches_dataset.live.update(deleted_at: Time.now.utc)
          Search.where(arrival_id: id).update(deleted_at: Time.now.utc)
          update(undone_at: Time.now.utc)
          Overlaps.settle(property)
        end
      end
    end
  end
end
