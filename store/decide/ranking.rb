# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what core ranks the open patches of a property by: for each a Core::Decide::Priority::Candidate.
    class Ranking
      CELL = 0.0018 # degrees, about 150 to 200 m: how far a patch of the same plant is looked for
      M_PER_DEGREE = 111_320.0
      SOURCE_M = 300.0 # across the fence
      ROW = 1_000_000 # cells from one row of them to the next
      AROUND = [-ROW, 0, ROW].flat_map { |row| [row - 1, row, row + 1] }.freeze
      NOWHERE = Core::Decide::Priority::Place.new

      def initialize(property, today, kept: Core::Kept.new(500))
        @property, @today, @kept = property, today, kept
      end

      # [Candidate]; patches that nobody can name are not ranked.
      def candidates
        @candidates ||= entries.filter_map { |entry| candidate(entry) }
      end

      # What the rules look at, of every ranked patch: {id => Facts}.
      def facts = @facts ||= entries.to_h { |entry| [entry.id, entry.facts] }
      def patch(id) = patches.fetch(id)

      private

      def entries
        @entries ||= begin
          site = @property.site(@today)
          patches.values.filter_map do |patch|
            patch.associations[:property] = @property
            facts = patch.facts(@today)
            Core::Decide::Agenda::Entry.new(id: patch.id, facts:, site:) if facts && @property.weed?(patch.plant)
          end
        end
      end

      def patches
        @patches ||= begin
          records = [Treatment.order(:done_on, :id), Planting.order(:from_on)]
          work, plantings = records.map { |kind| of_open(kind).group_by(&:patch_id) }
          open.for_agenda.select_append(:west, :east, :south, :north, :place).all.to_h do |patch|
            patch.associations.update(treatments: work.fetch(patch.id, []), plantings: plantings.fetch(patch.id, []))
            [patch.id, patch]
          end
        end
      end

      def open = Patch.wanting_work.where(property_id: @property.id)

      # Records of the open patches, in one query whatever their number.
      def of_open(records) = records.where(deleted_at: nil, patch_id: open.select(:id)).all

      def best = @best ||= Core::Decide::Agenda.new(entries, kept: @kept).best

      def candidate(entry)
        patch = patches.fetch(entry.id)
        verdict, seed_on = best.fetch(entry.id)
        # The agenda weighs a like amount of ground; here it is the patch's own.
        verdict = verdict.with(effort: Core::Decide::Effort.new(verdict.removal, entry.facts))
        Core::Decide::Priority::Candidate.new(id: patch.id, code: patch.code, facts: entry.facts, today: @today,
                                              verdict:, seed_on:,
                                              nearest_m: nearest(patch), share: share(patch), place: place(patch),
                                              started: patch.treatments.any?, left: left[patch.id])
      end

      # m to the next patch of the same plant on this property, between middles; nil for none within a cell.
      def nearest(patch) = next_to(patch, grid[patch.plant_key])

      def share(patch)
        whole = @whole ||= patches.values.each_with_object(Hash.new(0.0)) do |one, all|
          all[one.plant_key] += one.gross_m2.to_f
        end
        whole[patch.plant_key].positive? ? patch.gross_m2.to_f / whole[patch.plant_key] : 1.0
      end

      def place(patch)
        source = next_to(patch, across[patch.plant_key])
        source = nil if source && source >= SOURCE_M
        return NOWHERE if source.nil? && patch.place.nil?

        Core::Decide::Priority::Place.new(**(patch.place ? JSON.parse(patch.place, symbolize_names: true) : {}),
                                          source_m: source)
      end

      # Alive at each patch's last check: {patch id => number}.
      def left
        @left ||= of_open(Check.order(:checked_on, :id)).to_h { |check| [check.patch_id, check.alive] }
      end

      def middle(patch)
        [(patch.values[:west] + patch.values[:east]) / 2, (patch.values[:south] + patch.values[:north]) / 2]
      end

      # {plant => {cell => [[id, middle]]}} of this property, and of the others.
      def grid = @grid ||= cells(patches.values.map { |patch| [patch.plant_key, patch.id, middle(patch)] })

      def across
        @across ||= begin
          others = Patch.live.exclude(property_id: @property.id).exclude(state: "closed")
                        .where(plant_key: patches.values.map(&:plant_key).uniq)
          others = others.select(:id, :plant_key, :west, :east, :south, :north)
          cells(others.map { |other| [other.plant_key, other.id, middle(other)] })
        end
      end

      def cells(rows)
        rows.each_with_object({}) do |(plant, id, middle), all|
          ((all[plant] ||= {})[cell(*middle)] ||= []) << [id, middle]
        end
      end

      def cell(lon, lat) = ((lat / CELL).floor * ROW) + (lon / CELL).floor

      # m to the nearest other place in some cells; nil for none beside it.
      def next_to(patch, cells)
        return unless cells

        here = middle(patch)
        at = cell(*here)
        least = nil
        AROUND.each do |step|
          cells[at + step]&.each do |id, other|
            next if id == patch.id

            m = apart(here, other)
            least = m if least.nil? || m < least
          end
        end
        least
      end

      def apart((lon, lat), (other_lon, other_lat))
        east = (lon - other_lon) * M_PER_DEGREE * Math.cos(lat * Math::PI / 180)
        Math.hypot(east, (lat - other_lat) * M_PER_DEGREE)
      end
    end
  end
end
