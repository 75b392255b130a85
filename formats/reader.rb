# frozen_string_literal: true

module Thistle
  module Formats
    # Picks the reader by what the file is, not by what it is called. Raises BadInput that says what is wrong.
    module Reader
      MAX_BYTES = 48 * 1024 * 1024
      MAX_XML = 24 * 1024 * 1024 # a document tree takes many times its file
      MAX_FEATURES = 150_000
      MAX_PIECES = 4_000_000 # lists, cells or tags: a small file can unfold to a large one in memory
      NAMES = { "GeoJSON" => "GeoJSON", "KML" => "KML", "GPX" => "GPX",
                "Archive" => "KMZ, shapefiles or Darwin Core archive", "Table" => "CSV",
                "Sheet" => "Spreadsheet" }.freeze

      module_function

      # [Feature] from the bytes of a GeoJSON, KML, KMZ, GPX, CSV, XLSX, ODS, zipped shapefile or Darwin Core archive
      # file. Raises BadInput (field :file) for what is none of these, is too large or too deep, or holds no shape.
      def read(bytes)
        check_size(bytes, MAX_BYTES)
        features = format(bytes).read(bytes)
        refuse "The file holds no points, lines or areas." if features.empty?
        refuse "The file holds more than #{MAX_FEATURES} shapes; split it." if features.size > MAX_FEATURES
        features
      end

      # The module that reads such bytes, told by how they begin. Raises BadInput when none does.
      def format(bytes)
        return Sheet.kind(bytes) ? Sheet : Archive if bytes.byteslice(0, 4) == "PK\x03\x04".b

        head = Text.utf8(bytes.byteslice(0, 2000)).lstrip
        return GeoJSON if head.start_with?("{")
        return KML if head.match?(/<(\w+:)?kml[\s>]/)
        return GPX if head.match?(/<(\w+:)?gpx[\s>]/)

        refuse "A GPS receiver's log is a walk: load it under Walk." if head.match?(/\A\$\w{5},/)
        unless Table.table?(head)
          refuse "That is not GeoJSON, KML, KMZ, GPX, CSV, XLSX, ODS, a zipped shapefile or a Darwin Core archive, " \
                 "whatever its name says."
        end
        Table
      end

      def name(bytes) = NAMES.fetch(format(bytes).name.split("::").last)

      # Raises BadInput for an empty file, and for one of more bytes than the limit.
      def check_size(bytes, limit)
        refuse "The file is empty." if bytes.empty? || bytes.byteslice(0, 4096).strip.empty?
        refuse "The file is larger than #{limit / 1024 / 1024} MB." if bytes.bytesize > limit
      end

      # Raises BadInput for what would unfold to too many pieces, counted by the marks that begin one.
      def check_pieces(bytes, marks, most = MAX_PIECES)
        refuse "The file holds more than #{most / 1_000_000.0} million pieces; split it." if bytes.count(marks) > most
      end

      # Raises BadInput (field :file).
      def refuse(message) = raise(Core::BadInput.new(message, field: :file))
    end
  end
end
