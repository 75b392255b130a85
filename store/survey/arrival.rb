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
      RECORDS = [Treatment, Check, Planting].freeze # what comes in beside patches and searches
      VERDICTS = { "add" => "added", "change" => "changed", "double" => "doubled", "absent" => "kept as not there",
                   "same" => "the same already", "far" => "outside the boundary", "refuse" => "refused" }.freeze

      # features: hashes of geometry, name, properties, notes. Nothing reaches the map yet. Rows go in by slices, so
      # that other writers get their turn; what fails half-way leaves nothing.
      def self.draft(property, filename, features, format: nil)
        guessed = guess(features)
        arrival = create(property_id: property.id, filename:, format:, report: "[]", status: "failed",
                         total: features.size, fault: "Not all of it was read.", names: JSON.generate(Mapping.names),
                         mapping: JSON.generate(Mapping.for(guessed.keys, guessed)))
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

      # {their column => ours} by name alone: of what stands on the ground, and of each kind of record.
      def self.guess(features)
        headings = features.group_by(&:kind).transform_values { |some| some.flat_map { |f| f.properties.keys }.uniq }
        headings.map do |key, names|
          kind = Core::Survey::RecordColumns::KINDS[key] or next Core::Survey::Columns.guess(names)
          Core::Survey::RecordColumns.guess_in(kind, names)
        end.reduce({}, :merge)
      end

      def self.row_of(arrival, feature, row)
        { arrival_id: arrival.id, row:, name: feature.name, kind: feature.kind || "patch",
          geometry: feature.geometry && JSON.generate(feature.geometry),
          properties: JSON.generate(feature.properties || {}), notes: feature.notes&.join("; ") }
      rescue JSON::GeneratorError
        { arrival_id: arrival.id, row:, name: feature.name.to_s.scrub, geometry: nil, properties: "{}", notes: nil,
          kind: feature.kind || "patch" }
      end
      private_class_method :row_of, :guess

      def columns = JSON.parse(mapping || "{}")

      def reading
        Core::Survey::Columns::Reading.new(columns, Core::Knowledge.shipped, names: names_kept, days:)
      end

      # {kind => Core::Survey::RecordColumns::Reading} of rows that are past work, checks or plantings.
      def record_readings
        Core::Survey::RecordColumns::KINDS.transform_values do |kind|
          Core::Survey::RecordColumns::Reading.new(kind, columns, Core::Knowledge.shipped, days:)
        end
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
          [Search, *RECORDS].each do |model|
            model.where(arrival_id: id, deleted_at: nil).update(deleted_at: Time.now.utc)
          end
          FollowUps.settle_each(RECORDS.flat_map { |model| model.where(arrival_id: id).select_map(:patch_id) }.uniq)
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
