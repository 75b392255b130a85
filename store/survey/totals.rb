# frozen_string_literal: true

module Thistle
  module Store
    # Reading: sums over a property: patches, stems, gross and infested ground, by plant, state, zone and year. Several
    # plants may share ground: rows count each patch, the property's own total counts ground once.
    class Totals
      Row = Core::Value.define(:key, :patches, :gross_m2, :infested_m2, :stems, :ground_m2)
      # Infested ground: measured, else gross × cover (Core::Survey::Amount says the same of one patch), else not known.
      COVER = Core::Survey::Cover::CLASSES.map { |c| "WHEN #{c.key} THEN #{c.middle}" }.join(" ")
      COVERED = "COALESCE(cover_percent, CASE cover_class #{COVER} END)".freeze
      INFESTED = "COALESCE(infested_m2, gross_m2 * #{COVERED} / 100.0)".freeze

      def initialize(property)
        @property = property
        @db = Patch.db
      end

      # Ground that is not closed; `ground_m2` counts what patches share once.
      def whole = sum(nil, open_groups)

      def by_plant = summed(open_groups) { |group| group[:plant] }
      def by_state = summed(groups) { |group| group[:state] }

      # What of each zone is under patches that are not closed.
      def by_zone
        @by_zone ||= @db.fetch(<<~SQL, id: @property.id).map { |row| Row.new(**row) }.sort_by { |row| -row.gross_m2 }
          SELECT z.id AS key, COUNT(*) AS patches, SUM(s.shared_m2) AS gross_m2,
            SUM(s.shared_m2 * MIN(1.0, #{INFESTED} / NULLIF(gross_m2, 0))) AS infested_m2,
            NULL AS stems, NULL AS ground_m2
          FROM zones z CROSS JOIN patch_zones s ON s.zone_id = z.id -- few patches touch a zone
            CROSS JOIN patches ON patches.id = s.patch_id
          WHERE z.property_id = :id AND z.deleted_at IS NULL AND patches.deleted_at IS NULL AND state <> 'closed'
          GROUP BY z.id
        SQL
      end

      # [Core::Survey::Growth::Year], the end of every year so far, from the shapes that patches had.
      def by_year(today) = @by_year ||= Core::Survey::Growth.years_of(deltas(today.year), today)

      private

      SUMS = %i[patches gross_m2 infested_m2 stems ground_m2].freeze
      private_constant :SUMS

      # One pass over all live patches, through the index that holds all of this in this order.
      def groups
        @groups ||= @db.fetch(<<~SQL, id: @property.id).all
          SELECT plant_key AS plant, state, substr(shape_from, 1, 4) AS came, substr(closed_on, 1, 4) AS went,
            COUNT(*) AS patches, SUM(gross_m2) AS gross_m2, SUM(#{INFESTED}) AS infested_m2,
            SUM(stems) AS stems, SUM(gross_m2 - shared_m2) AS ground_m2
          FROM patches INDEXED BY patch_sums WHERE property_id = :id AND deleted_at IS NULL
          GROUP BY state, plant_key, shape_from, closed_on
        SQL
      end

      def open_groups = groups.reject { |group| group[:state] == "closed" }

      def summed(groups, &)
        groups.group_by(&).map { |key, same| sum(key, same) }.sort_by { |row| -(row.gross_m2 || 0) }
      end

      # nil where nobody measured; 0 patches are still 0.
      def sum(key, groups)
        sums = SUMS.to_h do |name|
          [name, groups.filter_map { |group| group[name] }.then { |found| found.sum unless found.empty? }]
        end
        Row.new(key:, **sums, patches: sums[:patches] || 0)
      end

      # {year => [gross, infested]} that came and went in it: shapes as they are, and as they were.
      def deltas(last)
        found = Hash.new { |hash, year| hash[year] = [0.0, 0.0] }
        (groups + past).each do |group|
          [[group[:came], 1], [group[:went], -1]].each do |year, sign|
            next unless year && year.to_i <= last

            found[year.to_i][0] += sign * (group[:gross_m2] || 0)
            found[year.to_i][1] += sign * (group[:infested_m2] || 0)
          end
        end
        found
      end

      def past
        @db.fetch(<<~SQL, id: @property.id).all
          SELECT substr(s.from_on, 1, 4) AS came, substr(s.to_on, 1, 4) AS went, SUM(s.gross_m2) AS gross_m2,
            SUM(COALESCE(s.infested_m2, s.gross_m2)) AS infested_m2
          FROM patch_shapes s JOIN patches p ON p.id = s.patch_id
          WHERE p.property_id = :id AND p.deleted_at IS NULL GROUP BY came, went
        SQL
      end
    end
  end
end
