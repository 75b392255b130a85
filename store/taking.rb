# frozen_string_literal: true

module Thistle
  module Store
    # Takes a looked-over arrival into the map: one transaction, in slices, telling how far it is.
    class Taking
      def initialize(arrival, seen_on:)
        @arrival, @seen_on = arrival, seen_on
        @property = arrival.property
        @reading = arrival.reading
        @now = Time.now.utc
        @db = Patch.db
        @same = { property_id: @property.id, arrival_id: arrival.id, slope: "flat", lock_version: 0, shared_m2: 0.0, created_at: @now,
                  updated_at: @now }
      end

      # Yields the number of rows done after each slice.
      def call
        first = (@db[:patches].max(:id) || 0) + 1
        @codes = @property.next_codes
        @surroundings = Surroundings.new(@property)
        @used = @property.patches_dataset.select_map(:code).to_h { |code| [code, true] }
        taken = @arrival.doubles == "add" ? %w[add change double] : %w[add change]
        @db.transaction do
          rows = @db[:arrival_rows].where(arrival_id: @arrival.id, verdict: taken).order(:row)
          rows.select(:id, :row, :name, :geometry, :properties, :notes, :verdict, :patch_id).each_slice(Arrival::SLICE).with_index do |slice, n|
            changes, additions = slice.partition { |row| row[:verdict] == "change" }
            add(additions)
            changes.each { |row| change(row) }
            yield [(n + 1) * Arrival::SLICE, @arrival.total].min if block_given?
          end
          keep_absences
          Overlaps.settle(@property, from: first)
        end
      end

      private

      def add(rows)
        return if rows.empty?

        @shared = []
        first = (@db[:patches].max(:id) || 0) + 1
        patches = rows.each_with_index.map { |row, n| columns_of(row, first + n) }
        Bulk.insert(:patches, patches)
        Bulk.insert(:observations, patches.select { |patch| patch[:plant_key] }.map { |patch| seen(patch) })
        Bulk.insert(:patch_zones, @shared)
        pairs = rows.zip(patches).map { |row, patch| "(#{row[:id]}, #{patch[:id]})" }.join(", ")
        @db.run("UPDATE arrival_rows SET patch_id = v.column2 FROM (VALUES #{pairs}) AS v WHERE arrival_rows.id = v.column1")
      end

      def seen(patch)
        { patch_id: patch[:id], seen_on: patch[:seen_on], plant_key: patch[:plant_key], settled: @arrival.sure, created_at: @now,
          note: "From #{@arrival.filename}" }
      end

      # A patch as plain columns: many at once, each measured and placed.
      def columns_of(row, id)
        incoming = Incoming.new(row, @reading, checked: true)
        told = incoming.columns
        size = told.slice(:width_m, :radius_m)
        placed, shared = @surroundings.of(incoming.shape, **size)
        @shared.concat(shared.map { |zone_id, shared_m2| { patch_id: id, zone_id:, shared_m2: } })
        seen_on = told[:seen_on] || @seen_on
        state = @arrival.sure && told[:plant_key] ? "standing" : "reported"
        measured = Patch.measured(incoming.shape, **size)
        { **@same, **told, **measured.compact, **placed.compact, id:, code: code_for(incoming.code), state:, seen_on:, shape_from: seen_on }
      end

      def code_for(wanted)
        code = wanted && !@used[wanted] && wanted.size <= 40 ? wanted : @codes.next
        code = @codes.next while @used[code]
        @used[code] = true
        code
      end

      # Absences on the same ground and day are one search.
      def keep_absences
        rows = @db[:arrival_rows].where(arrival_id: @arrival.id, verdict: "absent").order(:row).all
        rows.map { |row| Incoming.new(row, @reading) }.group_by { |row| [row.values[:seen_on], row.shape.geometry] }.each do |(searched_on, _), same|
          Search.record(@property, same.first.shape, plants: same.map(&:plant_key), as_told: true, searched_on:, arrival_id: @arrival.id,
                                                     note: "From #{@arrival.filename}")
        end
      end

      # Goes through the journal that undoes, as a change by hand does.
      def change(row)
        patch = Patch[row[:patch_id]]
        incoming = Incoming.new(row, @reading, checked: true)
        Change.keep([patch], "#{patch.code} changed by #{@arrival.filename}") do
          see_again(patch, incoming) if incoming.seen_again?(patch)
          patch.set(incoming.told(patch))
          patch.shape = incoming.shape
          patch.save
        end
        @db[:arrival_rows].where(id: row[:id]).update(change_id: Change.where(patch_id: patch.id).max(:id))
      end

      def see_again(patch, incoming)
        told = incoming.values
        amount = Core::Survey::Amount.new(**told.slice(:infested_m2, :cover_class, :cover_percent, :density_m2, :height_cm, :stage))
        Reshape.new(patch).see(seen_on: told[:seen_on], amount:, shape: incoming.shape, note: "From #{@arrival.filename}")
      end
    end
  end
end
