# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what taking a file would do, row by row: add, change (its code is known here), double (the same plant
    # within the arrival's distance), same, or refuse with the reason.
    class DryRun
      FAR = 200_000.0 # m outside the boundary from which a place is asked about; nearer ground may be a neighbour's
      TURNED = { "latitude and longitude may have changed places" => ->(lon, lat) { [lat, lon] },
                 "the longitude may lack its minus" => ->(lon, lat) { [-lon, lat] },
                 "the latitude may lack its minus" => ->(lon, lat) { [lon, -lat] } }.freeze
      private_constant :TURNED

      def initialize(arrival, seen_on:, job:)
        @arrival, @seen_on, @job = arrival, seen_on, job
        @property = arrival.property
        @reading = arrival.reading
        @known = @property.live_patches.select_hash(:code, :id)
        @codes, @mended, @records = {}, [], arrival.record_readings
        @first_seen = @property.live_patches.select_hash(:code, :seen_on)
        @nests = Hash.new do |hash, plant|
          hash[plant] = Core::Survey::Nest.new(arrival.apart_m) do |place, shape|
            place.shape.distance(shape) <= arrival.apart_m
          end
        end
        @property.live_patches.unordered.select(:id, :code, :plant_key, :west, :south, :east, :north)
                 .naked.each { |row| keep(OnMap.new(row)) }
      end

      # A place in the file, and one on the map, whose shape is read when it is needed.
      InFile = Struct.new(:shape, :label, :plant_key) do
        def box = shape.bounds
      end
      OnMap = Struct.new(:row) do
        def label = row[:code]
        def plant_key = row[:plant_key]
        def box = row.values_at(:west, :south, :east, :north)
        def shape = @shape ||= Patch[row[:id]].shape
      end
      private_constant :InFile, :OnMap

      def call
        db = Patch.db
        rows = db[:arrival_rows].where(arrival_id: @arrival.id).order(:row)
        read(rows.select_map(:id).each_slice(Arrival::SLICE).to_a).each_with_index do |slice, n|
          told = slice.map do |id, row, incoming|
            [id, *(incoming.is_a?(String) ? ["refuse", incoming, nil] : judge(id, row, incoming))]
          end
          @job.hold do
            settle_shapes(db)
            told.group_by { |_, *answer| answer }.each do |(verdict, reason, patch_id), same|
              db[:arrival_rows].where(id: same.map(&:first)).update(verdict:, reason:, patch_id:)
            end
          end
          @job.at((n + 1) * Arrival::SLICE)
        end
      end

      private

      # Slices of [id, row, what it says or the reason why it can't stand], read beside.
      def read(slices)
        Core::Helpers.map(slices) do |ids|
          rows = (@reader ||= Database.reader)[:arrival_rows].where(id: ids).order(:row)
          rows.select(:id, :row, :name, :geometry, :properties, :notes, :kind).map do |row|
            [row[:id], row[:row], incoming(row)]
          end
        end
      end

      def incoming(row)
        return IncomingRecord.new(row, @records.fetch(row[:kind])) if row[:kind] != "patch"

        Incoming.new(row, @reading)
      rescue Core::BadInput => e
        e.message
      end

      # [verdict, reason, patch id]
      def judge(id, row, incoming)
        return record(incoming) if incoming.is_a?(IncomingRecord)

        @mended << [id, incoming.shape] if incoming.changed?
        return absence(incoming) if incoming.absent?

        notes = incoming.notes.join("; ")
        first = incoming.code && @codes[incoming.code]
        return ["refuse", "its code #{incoming.code} stands in row #{first} already", nil] if first

        @codes[incoming.code] = row if incoming.code
        @first_seen[incoming.code] ||= incoming.values[:seen_on] || @seen_on
        known = @known[incoming.code]
        return known_patch(incoming, Patch[known], notes) if known

        new_patch(row, incoming, notes)
      rescue Core::BadInput => e
        ["refuse", e.message, nil]
      end

      # What becomes of past work, a check or a planting: its patch is known here, or stands in the file before it.
      def record(incoming)
        code = incoming.code
        known = @known[code]
        return ["refuse", "no patch is called #{code}, here or in the file", nil] unless known || @codes[code]
        return ["refuse", "its day is still to come", nil] if incoming.on > @seen_on

        first = @first_seen[code]
        if first && incoming.on < first
          return ["refuse", "its day is before #{code} was first seen, #{first.iso8601}", nil]
        end
        return ["same", nil, known] if known && incoming.known?(known)

        ["add", incoming.notes.empty? ? nil : "#{incoming.notes.join("; ")}: left empty", known]
      end

      # How far outside the boundary a shape lies and what may be wrong with it, in words; nil where there is no
      # boundary, and within it.
      def outside(shape)
        boundary = @boundary ||= @property.boundary&.shape or return
        return if inside?(boundary, shape.centre)

        metres = boundary.distance(shape)
        why = TURNED.find { |_, turn| inside?(boundary, turn.call(*shape.centre)) }&.first if metres.positive?
        return if metres < FAR && why.nil?

        ["lies #{@property.measures.length(metres)} outside the boundary", why].compact.join(": ")
      rescue Core::BadInput # so far off that no plane holds both
        "lies far outside the boundary"
      end

      def inside?(boundary, (longitude, latitude))
        west, south, east, north = boundary.bounds
        longitude.between?(west, east) && latitude.between?(south, north)
      end

      # What nobody knows here yet: doubled, outside the boundary, or added.
      def new_patch(row, incoming, notes)
        near = @nests[incoming.plant_key].near(incoming.shape)&.label
        keep(InFile.new(incoming.shape, "row #{row}", incoming.plant_key)) unless near
        far = outside(incoming.shape) unless near
        why = near ? "#{near} is the same plant within #{@arrival.apart_m.round} m" : far
        reason = [why, notes].compact.reject(&:empty?).join("; ")
        verdict = if near then "double"
                  else far ? "far" : "add"
                  end
        [verdict, reason.empty? ? nil : reason, nil]
      end

      # Shapes that were repaired on the way in go in as they are now.
      def settle_shapes(db)
        @mended.each { |id, shape| db[:arrival_rows].where(id:).update(geometry: JSON.generate(shape.geometry)) }
        @mended.clear
      end

      def absence(incoming)
        return ["refuse", "an absence needs its plant, its day and the ground that was searched", nil] unless
          incoming.plant_key && incoming.values[:seen_on] && incoming.shape.kind == "polygon"

        published = incoming.shape.published
        known = @property.searches.any? do |search|
          search.searched_on == incoming.values[:seen_on] && search.plants.key?(incoming.plant_key) &&
            search.seen_ground.published == published
        end
        [known ? "same" : "absent", nil, nil]
      end

      def known_patch(incoming, patch, notes)
        said = incoming.told(patch).reject { |key, value| patch[key] == value }
                       .map { |key, _| Core::Survey::Columns::BY_KEY.fetch(key).label }
        said << "shape" if patch.shape.published != incoming.shape.published
        again = incoming.seen_again?(patch)
        return ["same", nil, patch.id] if said.empty? && !again

        reasons = [notes]
        reasons.unshift("changes #{said.join(", ")}") if said.any?
        reasons.unshift("seen again on #{incoming.values[:seen_on].iso8601}, what it was is kept") if again
        ["change", reasons.reject(&:empty?).join("; "), patch.id]
      end

      def keep(place) = @nests[place.plant_key].add(place.box, place)
    end
  end
end
