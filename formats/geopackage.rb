# frozen_string_literal: true

require "sqlite3"
require "rgeo"
require "rgeo/geo_json"

module Thistle
  module Formats
    # A GeoPackage 1.3 (OGC 12-128): one SQLite file, a table a layer, geometries as WKB with their header.
    module Geopackage
      APPLICATION, VERSION, WGS84 = 0x47504B47, 10_300, 4326
      WKB = RGeo::WKRep::WKBGenerator.new(little_endian: true)
      TYPES = { Integer => "INTEGER", Float => "REAL" }.freeze

      module_function

      # A file at a path. layers: {name => [features, {property => class}]}, features being hashes of shape and
      # properties; with :table behind them, rows without a shape.
      def write(layers, path, changed_at = Time.now.utc)
        db = SQLite3::Database.new(path)
        frame(db)
        db.transaction do
          layers.each do |name, (rows, types, kind)|
            send(kind || :layer, db, name, rows, types, changed_at)
          end
        end
      ensure
        db&.close
      end

      def frame(db)
        db.execute_batch(<<~SQL)
          PRAGMA application_id = #{APPLICATION}; PRAGMA user_version = #{VERSION};
          CREATE TABLE gpkg_spatial_ref_sys (srs_name TEXT NOT NULL, srs_id INTEGER NOT NULL PRIMARY KEY,
            organization TEXT NOT NULL, organization_coordsys_id INTEGER NOT NULL, definition TEXT NOT NULL,
            description TEXT);
          CREATE TABLE gpkg_contents (table_name TEXT NOT NULL PRIMARY KEY, data_type TEXT NOT NULL,
            identifier TEXT UNIQUE, description TEXT DEFAULT '', last_change DATETIME NOT NULL,
            min_x DOUBLE, min_y DOUBLE, max_x DOUBLE, max_y DOUBLE,
            srs_id INTEGER REFERENCES gpkg_spatial_ref_sys(srs_id));
          CREATE TABLE gpkg_geometry_columns (table_name TEXT NOT NULL REFERENCES gpkg_contents(table_name),
            column_name TEXT NOT NULL, geometry_type_name TEXT NOT NULL,
            srs_id INTEGER NOT NULL REFERENCES gpkg_spatial_ref_sys(srs_id), z TINYINT NOT NULL, m TINYINT NOT NULL,
            PRIMARY KEY (table_name, column_name));
        SQL
        wgs84 = 'GEOGCS["WGS 84",DATUM["WGS_1984",SPHEROID["WGS 84",6378137,298.257223563]],' \
                'PRIMEM["Greenwich",0],UNIT["degree",0.0174532925199433]]'
        [["WGS 84", WGS84, "EPSG", WGS84, wgs84], ["Undefined Cartesian", -1, "NONE", -1, "undefined"],
         ["Undefined geographic", 0, "NONE", 0, "undefined"]]
          .each do |row|
          db.execute("INSERT INTO gpkg_spatial_ref_sys VALUES (?, ?, ?, ?, ?, NULL)", row)
        end
      end

      def layer(db, name, features, types, changed_at)
        keys = types.keys
        columns = types.map { |key, type| "\"#{key}\" #{TYPES.fetch(type, "TEXT")}" }
        db.execute("CREATE TABLE \"#{name}\" (fid INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, " \
                   "geom BLOB#{columns.map { |c| ", #{c}" }.join})")
        db.execute("INSERT INTO gpkg_contents VALUES (?, 'features', ?, '', ?, ?, ?, ?, ?, ?)",
                   [name, name, stamp(changed_at), *([nil] * 4), WGS84])
        db.execute("INSERT INTO gpkg_geometry_columns VALUES (?, 'geom', 'GEOMETRY', ?, 0, 0)", [name, WGS84])
        marks = (["?"] * (keys.size + 1)).join(", ")
        insert = db.prepare("INSERT INTO \"#{name}\" (geom#{keys.map { |key| ", \"#{key}\"" }.join}) VALUES (#{marks})")
        box = features.each_with_object([]) do |f, all|
          insert.execute([SQLite3::Blob.new(blob(f[:shape].published)), *keys.map { |key| plain(f[:properties][key]) }])
          widen(all, f[:shape].bounds)
        end
        insert.close
        return unless box.any?

        db.execute("UPDATE gpkg_contents SET min_x = ?, min_y = ?, max_x = ?, max_y = ? WHERE table_name = ?",
                   [*box, name])
      end

      # A table without geometries, of the same file.
      def table(db, name, rows, types, changed_at)
        columns = types.map { |key, type| ", \"#{key}\" #{TYPES.fetch(type, "TEXT")}" }
        db.execute("CREATE TABLE \"#{name}\" (fid INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL#{columns.join})")
        db.execute("INSERT INTO gpkg_contents VALUES (?, 'attributes', ?, '', ?, NULL, NULL, NULL, NULL, 0)",
                   [name, name, stamp(changed_at)])
        names, marks = types.keys.map { |key| "\"#{key}\"" }.join(", "), (["?"] * types.size).join(", ")
        insert = db.prepare("INSERT INTO \"#{name}\" (#{names}) VALUES (#{marks})")
        rows.each { |row| insert.execute(types.keys.map { |key| plain(row[:properties][key]) }) }
        insert.close
      end

      def stamp(time) = time.strftime("%Y-%m-%dT%H:%M:%S.%LZ")

      # "GP", version 0, flags (little-endian, no envelope), the reference system, then WKB.
      def blob(geometry)
        feature = RGeo::GeoJSON.decode(geometry, geo_factory: Core::Survey::Meridian::FLAT)
        ["GP", 0, 1, WGS84].pack("a2CCl<") + WKB.generate(feature)
      end

      def widen(box, bounds)
        box.replace(box.empty? ? bounds : [*box.first(2).zip(bounds).map(&:min),
                                           *box.last(2).zip(bounds.last(2)).map(&:max)])
      end

      def plain(value)
        return value ? 1 : 0 if [true, false].include?(value)

        value.is_a?(Numeric) || value.nil? ? value : value.to_s
      end
      private_class_method :frame, :layer, :table, :stamp, :blob, :widen, :plain
    end
  end
end
