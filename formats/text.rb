# frozen_string_literal: true

module Thistle
  module Formats
    # Text in whatever encoding a file has: a byte order mark says which, else UTF-8, else Windows-1252.
    module Text
      MARKS = { "\xEF\xBB\xBF".b => "UTF-8", "\xFF\xFE".b => "UTF-16LE", "\xFE\xFF".b => "UTF-16BE" }.freeze

      module_function

      # The bytes as UTF-8: by their byte order mark, else as they are, else as Windows-1252.
      def utf8(bytes)
        mark, encoding = MARKS.find { |sign, _| bytes.byteslice(0, sign.bytesize) == sign }
        body = mark ? bytes.byteslice(mark.bytesize..) : bytes
        text = body.dup.force_encoding(encoding || "UTF-8")
        return text.encode("UTF-8", invalid: :replace, undef: :replace) if mark
        return text if text.valid_encoding?

        body.dup.force_encoding("Windows-1252").encode("UTF-8", invalid: :replace, undef: :replace)
      end
    end
  end
end
