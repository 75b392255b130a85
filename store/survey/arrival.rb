# frozen_string_literal: true

module Thistle
  module Store
    # Model: a file that brings patches in. First a draft: its rows are kept, its columns mapped, and a dry run says of
    # each row whether it will be added, changed, is doubled, the same, or refused. Then it is taken in one transaction,
    # whole or not at all, and can be taken back.
    class Arrival < Sequel::Model(:arrivals)
      many_to_one :property, class: "Thistle::Store::Property"
      one_to_many :patches, class: "Thistle::Store::Patch"
      one_to_many :arrival_rows, class: "Thistle::Store::ArrivalRow", order: :row

      SLICE = 500
      VERDICTS = { "add" => "added", "change" => "changed", "double" => "doubled", "absent" => "kept as not there",
                   "same" => "the same already", "far" => "outside the boundary", "refuse" => "refused" }.freeze

      # features: hashes of geometry, name, properties, notes. Nothing reaches the map yet. Rows go in by slices, so
      # that other writers get their turn; what fails half-way leaves nothing.
      def self.draft(property, filename, features, format: nil)
        headers = features.flat_map { |f| f.properties.keys }.uniq
        arrival = create(property_id: property.id, filename:, format:, report: "[]", status: "failed",
                         total: features.size,
                         fault: "Not all of it was read.", mapping: JSON.generate(Mapping.for(headers)),
                         names: JSON.generate(Mapping.names))
        features.each_slice(SLICE).with_index do |slice, n|
          db.transaction do
            Bulk.insert(:arrival_rows, slice.each_with_index.map { |f, m| row_of(arrival, f, (n * SLICE) + m + 1) })
          end
        end
        arrival.update(status: "draft", fault: nil)
      rescue StandardError
        arrival&.delete
        raise
      end

      def self.row_of(arrival, feature, row)
        { arrival_id: arrival.id, row:, name: feature.name,
          geometry: feature.geometry && JSON.generate(feature.geometry),
          properties: JSON.generate(feature.properties || {}), notes: feature.notes&.join("; ") }
      rescue JSON::GeneratorError
        { arrival_id: arrival.id, row:, name: feature.name.to_s.scrub, geometry: nil, properties: "{}", notes: nil }
      end
      private_class_method :row_of

      def columns = JSON.parse(mapping || "{}")

      def reading
        Core::Survey::Columns::Reading.new(columns, Core::Knowledge.shipped, names: names_kept, days:)
      end

      # {text of the file => plant key} that a person settled.
      def names_kept = JSON.parse(names)
      def counts = @counts ||= arrival_rows_dataset.unordered.group_and_count(:verdict).as_hash(:verdict, :count)
      def draft? = status == "draft"
      def busy? = %w[looking taking].include?(status) && (job ? job.running? && !job.lost? : false)
      def taken? = status == "taken" && undone_at.nil?
      def takeable? = draft? || status == "failed"

      # How far the work on it is; any process may ask.
      def job = @job ||= Job.of("arrival", self)
      def done_rows = job ? job.done : done

      # Remembers the mapping for files of the same columns.
      def map(chosen, **ways)
        Mapping.remember(columns.keys, chosen)
        update(mapping: JSON.generate(chosen), **ways)
      end

      # The dry run: what would happen, row by row, written beside each row. At once when it is short.
      def look(seen_on:, at_once: total <= AT_ONCE)
        work("looking", ends_as: "draft", at_once:) { |job| DryRun.new(self, seen_on:, job:).call }
      end

      AT_ONCE = 2000 # rows that are looked over while the page waits

      # Takes it onto the map, whole or not at all. Of two people who ask at once, one does it; the other gets nil.
      def take(seen_on:, at_once: false)
        work("taking", ends_as: "taken", at_once:) { |job| Taking.new(self, seen_on:, job:).call }
      end

      # Takes the whole arrival back: what was added goes, what was changed is as it was. Raises BadInput when something
      # that it changed has been changed since, and when there is nothing to take back.
      def undo
        db.transaction do
          unless this.where(status: "taken", undone_at: nil).update(undone_at: Time.now.utc) == 1
            raise Core::BadInput.new("Nothing of #{filename} is on the map.", field: :undo)
          end

          journal.each(&:take_back)
          patches_dataset.live.update(deleted_at: Time.now.utc)
          Search.where(arrival_id: id).update(deleted_at: Time.now.utc)
        end
        refresh
        Overlaps.settle(property)
      end

      # Whose work was cut off: nothing of it stays, and it can be asked for again. all: at start, when no work of this
      # process can be running.
      def self.recover(all: false)
        where(status: %w[looking taking]).all.each do |arrival|
          job = arrival.job
          next if arrival.busy? && !(all && job.pid == Process.pid)

          arrival.give_up(Job::LOST) if job.nil? || !job.running? || job.give_up
        end
      end

      # Nothing of it reached the map.
      def give_up(words)
        Taking.clear_away(self)
        this.update(status: "failed", fault: words)
        refresh
      end

      # The journal's entries of what it changed, the last first.
      def journal
        Change.undoable.where(id: arrival_rows_dataset.exclude(change_id: nil).unordered.select(:change_id)).all
      end

      private

      def work(status, ends_as:, at_once:)
        job = claim(status) or return
        job.public_send(at_once ? :now : :later, failed: method(:give_up)) do
          yield job
          job.hold { this.update(status: ends_as, done: total) }
        end
        @counts = @job = nil
        refresh
      end

      # One of those who ask at the same time gets it.
      def claim(status)
        db.transaction do
          next unless this.where(status: %w[draft failed]).update(status:, fault: nil) == 1

          Job.start("arrival", self, total:)
        end
      end
    end
  end
end
