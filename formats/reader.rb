# frozen_string_literal: true

module Thistle
  module Formats
    # Picks the reader by what the file is, not by what it is called. Raises BadInput that says what is wrong.
    module Reader
      MAX_BYTES = 8 * 1024 * 1024
      MAX_FEATURES = 5000

      module_function

      # [Feature] from the bytes of a GeoJSON, KML or GPX file.
      def read(bytes)
        refuse "The file is empty." if bytes.strip.empty?
        refuse "The file is larger than #{MAX_BYTES / 1024 / 1024} MB." if bytes.bytesize > MAX_BYTES

        features = format(bytes).read(bytes)
        refuse "The file holds no points, lines or areas." if features.empty?
        refuse "The file holds more than #{MAX_FEATURES} shapes; split it." if features.size > MAX_FEATURES
        features
      end

      def format(bytes)
        head = bytes[0, 2000].dup.force_encoding("UTF-8").scrub.delete_prefix("\uFEFF").lstrip
        return GeoJSON if head.start_with?("{")
        return KML if head.match?(/<(\w+:)?kml[\s>]/)
        return GPX if head.match?(/<(\w+:)?gpx[\s>]/)

        refuse "That is not GeoJSON, KML or GPX, whatever its name says."
      end

      def refuse(message) = raise(Core::BadInput.new(message, field: :file))
    end
  end
end
