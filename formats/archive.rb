# frozen_string_literal: true

require "zip"

module Thistle
  module Formats
    # A zip file: a KMZ (one KML inside) or a Darwin Core archive. What it unpacks to is limited as it is read,
    # whatever sizes it declares.
    module Archive
      MAX_ENTRIES = 500
      RATIO = 200 # unpacked over packed: more is a bomb

      module_function

      def read(bytes)
        files = unpack(bytes)
        return DarwinCore.read(files) if files.key?("meta.xml")

        kml = files.keys.find { |name| name == "doc.kml" } || files.keys.find { |name| name.downcase.end_with?(".kml") }
        Reader.refuse("The archive holds neither a KML file nor a Darwin Core meta.xml.") unless kml
        KML.read(files[kml])
      end

      # {name => bytes} packed into a zip.
      def pack(files)
        Zip::OutputStream.write_buffer do |zip|
          files.each do |name, bytes|
            zip.put_next_entry(name)
            zip.write bytes
          end
        end.string
      end

      # {name => bytes} of the text files in a zip; pictures and folders are passed over.
      def unpack(bytes)
        left, files = Reader::MAX_BYTES, {}
        Zip::InputStream.open(StringIO.new(bytes)) do |zip|
          while (entry = zip.get_next_entry)
            Reader.refuse("The archive holds more than #{MAX_ENTRIES} files.") if files.size >= MAX_ENTRIES
            next unless entry.name.match?(/\.(kml|xml|txt|csv|tsv)\z/i)

            text = zip.read([left, RATIO * [bytes.bytesize, 4096].max].min + 1) || ""
            left -= text.bytesize
            Reader.refuse("The archive unpacks to more than #{Reader::MAX_BYTES / 1024 / 1024} MB: it was not opened any further.") if
              left.negative? || text.bytesize > RATIO * [bytes.bytesize, 4096].max

            files[entry.name] = text
          end
        end
        files
      rescue Zip::Error, Zlib::Error
        Reader.refuse("The archive is cut off or damaged; nothing was taken from it.")
      end
    end
  end
end
