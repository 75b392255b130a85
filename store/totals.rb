# frozen_string_literal: true

module Thistle
  module Store
    # Sums over a property: patches, stems, gross and infested ground, by plant, state, zone and year. Several plants
    # may share ground: rows count each patch, the property's own total counts ground once.
    class Totals
      Row = Core::Value.define(:key, :patches, :gross_m2, :infested_m2, :stems, :ground_m2)
      # Infested ground: measured, else gross × cover (Core::Survey::Amount says the same of one patch), else not known.
      COVER = Core::Survey::Cover::CLASSES.map { |c| "WHEN #{c.key} THEN #{c.middle}" }.join(" ")
      INFESTED = "COALESCE(infested_m2, gross_m2 * COALESCE(cover_percent, CASE cover_class #{COVER} END) / 100.0)".freeze
      SUMS = "COUNT(*) AS patches, SUM(gross_m2) AS gross_m2, SUM(#{INFESTED}) AS infested_m2, SUM(stems) AS stems, " \
             "SUM(gross_m2 - shared_m2) AS ground_m2".freeze

      def initialize(property)
        @property = property
        @db = Patch.db
      end

      # Ground that is not closed; `ground_m2` counts what patches share once.
      def whole = @whole ||= rows("SELECT NULL AS key, #{SUMS} FROM patches WHERE #{LIVE} AND state <> 'closed'").first

      def by_plant = @by_plant ||= rows("SELECT plant_key AS key, #{SUMS} FROM patches WHERE #{LIVE} AND state <> 'closed' GROUP BY plant_key")
      def by_state = @by_state ||= rows("SELECT state AS key, #{SUMS} FROM patches WHERE #{LIVE} GROUP BY state")

      # What of each zone is under patches that are not closed.
      def by_zone
        @by_zone ||= rows(<<~SQL)
          SELECT z.id AS key, COUNT(*) AS patches, SUM(s.shared_m2) AS gross_m2,
            SUM(s.shared_m2 * MIN(1.0, #{INFESTED} / NULLIF(gross_m2, 0))) AS infested_m2, NULL AS stems, NULL AS ground_m2
          FROM patch_zones s JOIN zones z ON z.id = s.zone_id JOIN patches ON patches.id = s.patch_id
          WHERE patches.property_id = :id AND patches.deleted_at IS NULL AND state <> 'closed' GROUP BY z.id
        SQL
      end

      # [Core::Survey::Growth::Year], the end of every year so far, from the shapes that patches had.
      def by_year(today) = @by_year ||= Core::Survey::Growth.years_of(deltas(today), today)

      private

      LIVE = "property_id = :id AND deleted_at IS NULL"
      private_constant :LIVE

      def rows(sql) = @db.fetch(sql, id: @property.id).map { |row| Row.new(**row) }.sort_by { |row| -(row.gross_m2 || 0) }

      # {year => [gross, infested]} that came and went in it.
      def deltas(today)
        sql = <<~SQL
          SELECT day, SUM(gross) AS gross, SUM(infested) AS infested FROM (
            SELECT strftime('%Y', COALESCE(shape_from, seen_on)) AS day, gross_m2 AS gross, #{INFESTED} AS infested FROM patches WHERE #{LIVE}
            UNION ALL SELECT strftime('%Y', closed_on), -gross_m2, -#{INFESTED} FROM patches WHERE #{LIVE} AND closed_on IS NOT NULL
            UNION ALL SELECT strftime('%Y', s.from_on), s.gross_m2, COALESCE(s.infested_m2, s.gross_m2) FROM patch_shapes s
              JOIN patches p ON p.id = s.patch_id WHERE p.property_id = :id AND p.deleted_at IS NULL
            UNION ALL SELECT strftime('%Y', s.to_on), -s.gross_m2, -COALESCE(s.infested_m2, s.gross_m2) FROM patch_shapes s
              JOIN patches p ON p.id = s.patch_id WHERE p.property_id = :id AND p.deleted_at IS NULL)
          WHERE day <= :year GROUP BY day
        SQL
        @db.fetch(sql, id: @property.id, year: today.year.to_s).to_h { |row| [row[:day].to_i, [row[:gross] || 0.0, row[:infested] || 0.0]] }
      end
    end
  end
end
