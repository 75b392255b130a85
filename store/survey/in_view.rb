# frozen_string_literal: true

module Thistle
  module Store
    # Reading: the patches of a property in a box of the map as GeoJSON, written by SQLite through the R*Tree: shapes,
    # or, where there are too many to tell apart, how many stand where.
    class InView
      MOST = 3000
      ACROSS = 14 # cells of a crowded view from west to east

      # [west, south, east, north] from "w,s,e,n", or nil.
      def self.box(text)
        numbers = text.to_s.split(",").map { |n| Float(n, exception: false) }
        numbers if numbers.size == 4 && numbers.all?(&:finite?) && numbers[0] < numbers[2] && numbers[1] < numbers[3]
      end

      # seen: a box that has been answered already.
      def initialize(property_id, box, seen: nil)
        @property_id, @box, @seen = property_id, box, seen
        @db = Patch.db
      end

      def json
        number, rows = features
        number > MOST ? crowds : %({"type":"FeatureCollection","features":[#{rows}]})
      end

      private

      # What stands between what is stored, for SQLite's printf: half the time of joining as many pieces.
      FEATURE = '{"type":"Feature","id":%d,"geometry":%s,"properties":{"code":%s,"state":"%s","plant":%s,"radius":%s}}'
      private_constant :FEATURE

      # [how many were looked at, their text]. Text is joined as it is stored: shapes were written as JSON and need not
      # be read again. The tree goes first, whatever the planner thinks, and no further than what can be drawn.
      def features
        @db.fetch(<<~SQL).first.values_at(:number, :rows)
          SELECT COUNT(*) AS number, group_concat(CASE WHEN p.id IS NOT NULL THEN printf('#{FEATURE}', p.id,
            COALESCE(p.outline, p.geometry), json_quote(p.code), p.state,
            COALESCE('"' || p.plant_key || '"', 'null'), COALESCE(p.radius_m, 'null')) END) AS rows
          FROM (SELECT id FROM patch_extents e
                WHERE (#{meets}) #{"AND NOT (#{meets(@seen)})" if @seen} LIMIT #{MOST + 1}) e
          LEFT JOIN patches p ON p.id = e.id AND #{live} -- what is another property's counts, and is not sent
        SQL
      end

      def crowds
        west, south, east, = @box
        cell = (east - west) / ACROSS
        rows = @db.fetch(<<~SQL).all
          SELECT AVG((e.west + e.east) / 2) AS lon, AVG((e.south + e.north) / 2) AS lat, COUNT(*) AS patches,
            SUM(p.state IN ('standing', 'regrowing')) AS standing
          FROM patch_extents e CROSS JOIN patches p ON p.id = e.id WHERE (#{meets}) AND #{live}
          GROUP BY CAST((e.west - #{west}) / #{cell} AS INTEGER), CAST((e.south - #{south}) / #{cell} AS INTEGER)
        SQL
        JSON.generate(type: "FeatureCollection", features: [],
                      crowds: rows.map { |row| row.merge(lon: row[:lon].round(6), lat: row[:lat].round(6)) })
      end

      def live = "p.property_id = #{@property_id.to_i} AND p.deleted_at IS NULL"

      # Boxes are numbers by now, safe to write into the query.
      def meets(box = @box)
        found = Core::Survey::Meridian.boxes(box).map do |west, south, east, north|
          "(e.west <= #{east} AND e.east >= #{west} AND e.south <= #{north} AND e.north >= #{south})"
        end
        found.join(" OR ")
      end
    end
  end
end
