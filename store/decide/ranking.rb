# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what core ranks the open patches of a property by: for each a Core::Decide::Priority::Candidate.
    class Ranking
      CELL = 0.0018 # degrees, about 150 to 200 m: how far a patch of the same plant is looked for
      SOURCE_M = 300.0 # across the fence
      ROW = 1_000_000 # cells from one row of them to the next
      AROUND = [-ROW, 0, ROW].flat_map { |row| [row - 1, row, row + 1] }.freeze
      NOWHERE = Core::Decide::Priority::Place.new

      # What follows from a patch alone: its Facts, its best move on its own ground, its next ripe seed; started: was it
      # treated before? left: alive at its last check, nil where there was none.
      Known = Core::Value.define(:facts, :verdict, :seed_on, :started, :left)

      # All that a patch's own answer rests on, as one text: to read thirty columns of ten thousand rows takes longer.
      TOLD = Sequel.function(:json_array, *(Patch::AGENDA - %i[id code])).as(:told)
      COLUMNS = [:id, :code, :plant_key, :gross_m2, :place, :west, :east, :south, :north, TOLD, Patch::LINEAGE].freeze

      def initialize(property, today, kept: Core::Kept.new(500))
        @property, @today, @kept = property, today, kept
      end

      # [Candidate]; patches that nobody can name are not ranked.
      def candidates
        @candidates ||= rows.filter_map { |row| (known = moves[row[:id]]) && candidate(row, known) }
      end

      # What the rules look at, of every ranked patch: {id => Facts}.
      def facts = @facts ||= moves.transform_values(&:facts)

      # The Patch of an id; those that a page shows are read at once (#read).
      def patch(id) = (@patches ||= {})[id] ||= loaded([id]).first

      def read(ids) = (@patches ||= {}).update(loaded(ids).to_h { |patch| [patch.id, patch] })

      private

      def site = @site ||= @property.site(@today)
      def rows = @rows ||= open.exclude(plant_key: nil).naked.unordered.select(*COLUMNS).all

      # {id => Known} of those that are weeds here: kept ones, and the others worked out.
      def moves
        @moves ||= begin
          weeds = Hash.new { |all, key| all[key] = @property.weed?(Core::Knowledge.shipped.plant(key)) }
          keys = rows.select { |row| weeds[row[:plant_key]] }.to_h { |row| [row[:id], content(row)] }
          found = keys.transform_values { |key| key && @kept[key] }
          worked_out(found.select { |_, known| known.nil? }.keys).each do |id, known|
            found[id] = keys[id] ? @kept.fetch(keys[id]) { known } : known
          end
          found
        end
      end

      # What a patch's own answer rests on; nil where that is more than its own row and records, since it was parted
      # from another or took one in.
      def content(row)
        return if row[:lineage] == 1

        records = [worked[row[:id]], (:planted if young.include?(row[:id])),
                   (:reported if reported.include?(row[:id]))].compact
        [:ranked, site, shared[row[:plant_key]], records.empty? ? row[:told] : "#{row[:told]}#{records}"]
      end

      # The same for all patches of a plant.
      def shared
        @shared ||= Hash.new do |all, key|
          plant = Core::Knowledge.shipped.plant(key)
          all[key] = [key, @property.facts_shared(plant)].hash
        end
      end

      def worked
        @worked ||= of_open(Treatment).order(:done_on, :id)
                                      .select_map([:patch_id, :method_key, :id, Sequel.cast(:done_on, String).as(:day)])
                                      .group_by(&:first)
      end

      def young = @property.together.planted_young(@today)

      def reported = @reported ||= Report.where(patch_id: open.select(:id)).select_map(:patch_id).to_set

      # {id => Known}.
      def worked_out(ids)
        return {} if ids.empty?

        found = ids.each_slice(1000).flat_map { |some| loaded(some) }
        entries = found.map do |patch|
          Core::Decide::Agenda::Entry.new(id: patch.id, facts: patch.facts(@today), site:)
        end
        best = Core::Decide::Agenda.new(entries, kept: @kept).best
        found.zip(entries).to_h { |patch, entry| [patch.id, known(patch, entry.facts, *best.fetch(patch.id))] }
      end

      def known(patch, facts, verdict, seed_on)
        state = patch.history.there(@today).state
        # The agenda weighs a like amount of ground; here it is the patch's own.
        Known.new(facts:, seed_on:, started: worked.key?(patch.id),
                  left: (state.whole + state.whole_young if state.from&.first == "check"),
                  verdict: verdict.with(effort: Core::Decide::Effort.new(verdict.removal, facts)))
      end

      # [Patch] by their ids, with what is asked of them.
      def loaded(ids)
        found = Patch.where(id: ids).for_agenda.select_append(:west, :east, :south, :north, :place)
                     .eager(:treatments, :reports).all
        found.each { |patch| patch.associations[:property] = @property }
      end

      def open = Patch.wanting_work.where(property_id: @property.id)

      # Records of the open patches, in one query whatever their number.
      def of_open(records) = records.where(deleted_at: nil, patch_id: open.select(:id))

      def candidate(row, known)
        Core::Decide::Priority::Candidate.new(id: row[:id], code: row[:code], facts: known.facts, today: @today,
                                              verdict: known.verdict, seed_on: known.seed_on,
                                              nearest_m: nearest(row), share: share(row), place: place(row),
                                              started: known.started, left: known.left)
      end

      # m to the next patch of the same plant on this property, between middles; nil for none within a cell.
      def nearest(row) = next_to(row, grid[row[:plant_key]])

      def share(row)
        whole = @whole ||= rows.each_with_object(Hash.new(0.0)) do |one, all|
          all[one[:plant_key]] += one[:gross_m2].to_f
        end
        whole[row[:plant_key]].positive? ? row[:gross_m2].to_f / whole[row[:plant_key]] : 1.0
      end

      def place(row)
        source = next_to(row, across[row[:plant_key]])
        source = nil if source && source >= SOURCE_M
        return NOWHERE if source.nil? && row[:place].nil?

        told = row[:place] ? JSON.parse(row[:place], symbolize_names: true) : {}
        Core::Decide::Priority::Place.new(**told, source_m: source)
      end

      def middle(row) = [(row[:west] + row[:east]) / 2, (row[:south] + row[:north]) / 2]

      # {plant => {cell => [[id, middle]]}} of this property, and of the others.
      def grid = @grid ||= cells(rows.map { |row| [row[:plant_key], row[:id], middle(row)] })

      def across
        @across ||= begin
          others = Patch.live.exclude(property_id: @property.id).exclude(state: "closed")
                        .where(plant_key: rows.map { |row| row[:plant_key] }.uniq)
          others = others.naked.select(:id, :plant_key, :west, :east, :south, :north)
          cells(others.map { |other| [other[:plant_key], other[:id], middle(other)] })
        end
      end

      def cells(rows)
        rows.each_with_object({}) do |(plant, id, middle), all|
          ((all[plant] ||= {})[cell(*middle)] ||= []) << [id, middle]
        end
      end

      def cell(lon, lat) = ((lat / CELL).floor * ROW) + (lon / CELL).floor

      # m to the nearest other place in some cells; nil for none beside it.
      def next_to(row, cells)
        return unless cells

        here = middle(row)
        at = cell(*here)
        least = nil
        AROUND.each do |step|
          cells[at + step]&.each do |id, other|
            next if id == row[:id]

            m = apart(here, other)
            least = m if least.nil? || m < least
          end
        end
        least
      end

      # Metres, with a degree's metres of the middle of the property: asked for a hundred thousand times.
      def apart((lon, lat), (other_lon, other_lat))
        along, up = @metres ||= Core::Degrees.metres(@property.latitude)
        Math.hypot((lon - other_lon) * along, (lat - other_lat) * up)
      end
    end
  end
end
