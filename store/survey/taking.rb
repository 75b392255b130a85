# frozen_string_literal: true

module Thistle
  module Store
    # Process: takes a looked-over arrival into the map in slices of a job, told how far it is; what it adds is
    # seen when all of it is there.
    class Taking
      def initialize(arrival, seen_on:, job:)
        @arrival, @seen_on, @job = arrival, seen_on, job
        @property = arrival.property
        @reading = arrival.reading
        @now = Time.now.utc
        @db = Patch.db
        @same = { property_id: @property.id, arrival_id: arrival.id, slope: "flat", lock_version: 0, shared_m2: 0.0,
                  created_at: @now,
                  updated_at: @now, deleted_at: @now }
      end

      CHANGES = 25 # patches changed in one go, so that other writers get their turn

      # Additions go in unseen, in slices, so that nobody waits long; then
      # all of them are shown at once.
      def call
        @surroundings = Surroundings.new(@property)
        done = 0
        worked_out(%w[add double far]).each do |rows, patches, shared, people|
          @job.hold { store(rows, patches, shared, people) }
          @job.at(done += rows.size)
        end
        rows_of(%w[change]).each_slice(CHANGES) do |rows|
          @job.hold { rows.each { |row| change(row) } }
          @job.at(done += rows.size)
        end
        show
        Overlaps.settle(@property, @arrival.patches_dataset.live.unordered.select_map(:id))
        take_records(done)
      end

      # Takes away what an arrival that did not end had done.
      def self.clear_away(arrival)
        arrival.journal.each(&:take_back)
        arrival.arrival_rows_dataset.exclude(patch_id: nil).where(verdict: %w[add double far]).update(patch_id: nil)
        arrival.patches_dataset.unordered.select_map(:id)
               .each_slice(Arrival::SLICE) { |ids| Patch.where(id: ids).delete }
        [Search, *Arrival::RECORDS].each { |model| model.where(arrival_id: arrival.id).delete }
      end

      private

      # Past work, checks and plantings, on patches that are on the map by now; what follows from them, a patch at a
      # time.
      def take_records(done)
        rows = @db[:arrival_rows].where(arrival_id: @arrival.id, verdict: "add").exclude(kind: "patch").order(:row)
        readings, site = @arrival.record_readings, @property.site(@seen_on)
        rows.select_map(:id).each_slice(CHANGES) do |ids|
          @job.hold do
            touched = @db[:arrival_rows].where(id: ids).order(:row).map do |row|
              keep_record(IncomingRecord.new(row, readings.fetch(row[:kind])), site)
            end
            FollowUps.settle_each(touched.uniq)
          end
          @job.at(done += ids.size)
        end
      end

      # The id of its patch.
      def keep_record(record, site)
        patch_id = @property.live_patches.unordered.where(code: record.code).get(:id)
        more = record.model == Treatment ? { weather: JSON.generate(Treatment.weather(site, record.on)) } : {}
        record.model.create(patch_id:, arrival_id: @arrival.id, **record.columns, **more)
        patch_id
      end

      COLUMNS = %i[id row name geometry properties notes verdict patch_id].freeze
      private_constant :COLUMNS

      # Rows by verdict in their order, a slice at a time in memory.
      def rows_of(verdicts)
        slices(verdicts).lazy.flat_map { |some| rows(@db, some) }
      end

      # What costs time is worked out beside, before the file is asked for:
      # [[rows, patches to be, [[place in the slice, zone id, m² on it]], who saw each]].
      def worked_out(verdicts)
        Core::Helpers.map(slices(verdicts)) do |some|
          found = rows(@reader ||= Database.reader, some)
          patches, shared, people = found.map { |row| columns_of(row) }.transpose
          zones = shared.flat_map.with_index { |some, n| some.map { |zone_id, m2| [n, zone_id, m2] } }
          [found.map { |row| row.slice(:id) }, patches, zones, people]
        end
      end

      def slices(verdicts)
        verdicts -= ["double"] unless @arrival.doubles == "add"
        verdicts -= ["far"] unless @arrival.outside == "add"
        @db[:arrival_rows].where(arrival_id: @arrival.id, kind: "patch", verdict: verdicts).order(:row).select_map(:id)
                          .each_slice(Arrival::SLICE).to_a
      end

      def rows(db, ids) = db[:arrival_rows].where(id: ids).order(:row).select(*COLUMNS).all

      # The whole of it appears.
      def show
        @job.hold do
          keep_absences
          @arrival.patches_dataset.update(deleted_at: nil)
        end
      end

      def store(rows, patches, shared, people)
        first = (@db[:patches].max(:id) || 0) + 1
        codes = codes_for(patches)
        patches.each_with_index { |patch, n| patch.merge!(@same, id: first + n, code: codes[n]) }
        Bulk.insert(:patches, patches)
        named = patches.zip(people).select { |patch, _| patch[:plant_key] }
        Bulk.insert(:observations, named.map { |patch, who| seen(patch, who) })
        Bulk.insert(:patch_zones, shared.map { |n, zone_id, shared_m2| { patch_id: first + n, zone_id:, shared_m2: } })
        pairs = rows.zip(patches).map { |row, patch| "(#{row[:id]}, #{patch[:id]})" }.join(", ")
        @db.run("UPDATE arrival_rows SET patch_id = v.column2 FROM (VALUES #{pairs}) AS v WHERE arrival_rows.id = " \
                "v.column1")
      end

      def seen(patch, people)
        { patch_id: patch[:id], seen_on: patch[:seen_on], plant_key: patch[:plant_key], settled: @arrival.sure,
          created_at: @now, people: people && people[0, 255],
          note: "From #{@arrival.filename}" }
      end

      # A patch as plain columns, measured and placed, unseen until all are in; and {zone id => m² of it there}.
      def columns_of(row)
        incoming = Incoming.new(row, @reading, checked: true)
        told = incoming.columns
        size = told.slice(:width_m, :radius_m)
        placed, shared = @surroundings.of(incoming.shape, **size)
        seen_on = told[:seen_on] || @seen_on
        state = @arrival.sure && told[:plant_key] ? "standing" : "reported"
        measured = Patch.measured(incoming.shape, **size)
        patch = { **told, **measured.compact, **placed.compact,
          code: incoming.code, state:, seen_on:, shape_from: seen_on }
        [patch, shared, incoming.values[:people]]
      end

      # Their own codes where nobody has them, else the next free ones.
      def codes_for(patches)
        wanted = patches.map { |patch| patch[:code] if patch[:code] && patch[:code].size <= 40 }
        used = @property.patches_dataset.unordered.where(code: wanted.compact).select_map(:code)
                        .to_h { |code| [code, true] }
        own = wanted.map { |code| code if code && !used[code] && (used[code] = true) }
        free = @property.next_codes(own.count(nil), taken: own.compact)
        own.map { |code| code || free.shift }
      end

      # Absences on the same ground and day are one search.
      def keep_absences
        rows = @db[:arrival_rows].where(arrival_id: @arrival.id, verdict: "absent").order(:row).all
        absent = rows.map { |row| Incoming.new(row, @reading) }
        absent.group_by { |row| [row.values[:seen_on], row.shape.geometry] }.each do |(searched_on, _), same|
          Search.record(@property, same.first.shape, plants: same.map(&:plant_key), as_told: true, searched_on:,
                                                     arrival_id: @arrival.id, note: "From #{@arrival.filename}")
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
        amount = Core::Survey::Amount.new(**told.slice(:infested_m2, :cover_class, :cover_percent, :density_m2,
                                                       :height_cm, :stage))
        Reshape.new(patch).see(seen_on: told[:seen_on], amount:, shape: incoming.shape,
                               note: "From #{@arrival.filename}")
      end
    end
  end
end
