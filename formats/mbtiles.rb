# frozen_string_literal: true

require "sqlite3"

module Thistle
  module Formats
    # MBTiles 1.3, raster: tiles straight out of the file, opened for reading only.
    class MBTiles
      TYPES = { "png" => "image/png", "jpg" => "image/jpeg", "jpeg" => "image/jpeg", "webp" => "image/webp" }.freeze
      SIGN = "SQLite format 3\u0000".b

      # What a file says may run for ever, so a statement that takes this long is cut off; nothing of it is worked out,
      # and what is longer than this is not read.
      PATIENCE_MS = 2000
      NEEDED = %w[metadata tiles].freeze
      TILE, FACT, FACTS = 4 * 1024 * 1024, 100_000, 500 # bytes, letters, rows
      STORED = 0 # `hidden` of a column that is neither generated nor a virtual table's

      # Raises BadInput (field :file) for what is not one.
      def initialize(path)
        refuse "is not an MBTiles file: it is no SQLite database" unless File.binread(path, 16) == SIGN
        @db = SQLite3::Database.new(path, readonly: true)
        @db.statement_timeout = PATIENCE_MS
        check_tables
        @facts = @db.execute("SELECT name, value FROM metadata WHERE length(value) < ? LIMIT ?", [FACT, FACTS]).to_h
        @db.execute("SELECT zoom_level, tile_column, tile_row, tile_data FROM tiles LIMIT 1")
        refuse "holds vector tiles; only pictures can be shown" unless TYPES.key?(@facts["format"] || "png")
      rescue SQLite3::Exception
        refuse "is not an MBTiles file: it lacks the tables of one, or is damaged"
      end

      def media = TYPES.fetch(@facts["format"] || "png")

      # What the map needs: { name, min, max, bounds [west, south, east, north] }. Raises BadInput where there are no
      # tiles.
      def facts
        low, high = @db.get_first_row("SELECT MIN(zoom_level), MAX(zoom_level) FROM tiles")
        refuse "holds no tiles" unless low
        { name: @facts["name"], min: low, max: high, bounds: @facts["bounds"]&.split(",")&.map(&:to_f) }
      end

      # Bytes of the tile at z, x, y counted from the north as maps ask for it (the file counts from the south); nil if
      # none, or none that a picture of this size could be.
      def tile(zoom, column, row)
        return unless zoom.between?(0, 30)

        @db.get_first_value("SELECT tile_data FROM tiles WHERE zoom_level = ? AND tile_column = ? AND tile_row = ? " \
                            "AND typeof(tile_data) = 'blob' AND length(tile_data) <= ?",
                            [zoom, column, (1 << zoom) - 1 - row, TILE])
      end

      def close = @db.close

      private

      def check_tables
        tables = @db.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name IN ('metadata', 'tiles')")
        plain = tables.flatten.sort == NEEDED && NEEDED.all? { |table| stored?(table) }
        return if plain && @db.execute("SELECT 1 FROM sqlite_master WHERE type = 'trigger'").empty?

        refuse "keeps its tiles in views or works them out, or has none: save it with plain tables named metadata " \
               "and tiles"
      end

      # Is everything in a table written down in it?
      def stored?(table)
        sql = @db.get_first_value("SELECT sql FROM sqlite_master WHERE type = 'table' AND name = ?", [table])
        !sql.match?(/\A\s*CREATE\s+VIRTUAL/i) &&
          @db.execute("SELECT hidden FROM pragma_table_xinfo(?)", [table]).flatten.all?(STORED)
      end

      def refuse(what) = raise(Core::BadInput.new("The file #{what}.", field: :file))
    end
  end
end
