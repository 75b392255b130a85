# frozen_string_literal: true

require "sqlite3"

module Thistle
  module Formats
    # MBTiles 1.3, raster: tiles straight out of the file, opened for reading only.
    class MBTiles
      TYPES = { "png" => "image/png", "jpg" => "image/jpeg", "jpeg" => "image/jpeg", "webp" => "image/webp" }.freeze
      SIGN = "SQLite format 3\u0000".b

      # A view could run for ever, and do what it likes; a statement that takes this long is cut off.
      PATIENCE_MS = 2000
      NEEDED = %w[metadata tiles].freeze

      # Raises BadInput (field :file) for what is not one.
      def initialize(path)
        refuse "is not an MBTiles file: it is no SQLite database" unless File.binread(path, 16) == SIGN
        @db = SQLite3::Database.new(path, readonly: true)
        @db.statement_timeout = PATIENCE_MS
        check_tables
        @facts = @db.execute("SELECT name, value FROM metadata").to_h
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
      # none.
      def tile(zoom, column, row)
        return unless zoom.between?(0, 30)

        @db.get_first_value("SELECT tile_data FROM tiles WHERE zoom_level = ? AND tile_column = ? AND tile_row = ?",
                            [zoom, column, (1 << zoom) - 1 - row])
      end

      def close = @db.close

      private

      def check_tables
        tables = @db.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name IN ('metadata', 'tiles')")
        return if tables.flatten.sort == NEEDED

        refuse "keeps its tiles in views, or has none: save it with plain tables named metadata and tiles"
      end

      def refuse(what) = raise(Core::BadInput.new("The file #{what}.", field: :file))
    end
  end
end
