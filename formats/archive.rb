# frozen_string_literal: true

require "zip"

module Thistle
  module Formats
    # A zip file: a KMZ (one KML inside), a Darwin Core archive or shapefiles. What it unpacks to is limited as it is
    # read, whatever sizes it declares.
    module Archive
      MAX_ENTRIES = 500
      RATIO = 200 # unpacked over packed: more is a bomb
      TOO_MUCH = "The archive unpacks to more than #{Reader::MAX_BYTES / 1024 / 1024} MB, or far more than it packs: " \
                 "it was left.".freeze

      Zip.warn_invalid_date = false # nobody reads it

      module_function

      # [Feature] of a KMZ's or an archive's bytes. Raises BadInput for what holds neither, or unpacks to too much.
      def read(bytes)
        files = unpack(bytes)
        return DarwinCore.read(files) if files.key?("meta.xml")
        return Shapefile.read(files) if Shapefile.among?(files.keys)

        # a main file may only point to others beside it
        kml = files.select { |name, _| name.downcase.end_with?(".kml") }.values
        Reader.refuse("The archive holds no KML file, no shapefile and no Darwin Core meta.xml.") if kml.empty?
        kml.flat_map { |text| KML.read(text) }
      end

      # A zip file at a path. files: {name => bytes, or what writes them into its argument}.
      def pack(path, files)
        Zip::OutputStream.open(path) do |zip|
          files.each do |name, bytes|
            zip.put_next_entry(name)
            bytes.respond_to?(:call) ? bytes.call(zip) : zip.write(bytes)
          end
        end
      end

      # {name => bytes} of the texts and shapefiles in a zip; pictures and folders are passed over.
      def unpack(bytes)
        zip = Zip::File.open_buffer(StringIO.new(bytes))
        entries = zip.entries.select { |entry| entry.name.match?(/\.(kml|xml|txt|csv|tsv|shp|shx|dbf|prj|cpg)\z/i) }
        Reader.refuse("The archive holds more than #{MAX_ENTRIES} files.") if entries.size > MAX_ENTRIES
        left = [Reader::MAX_BYTES, RATIO * [bytes.bytesize, 4096].max].min
        entries.to_h do |entry|
          text = entry.get_input_stream.read(left + 1) || ""
          left -= text.bytesize
          Reader.refuse(TOO_MUCH) if left.negative?
          [entry.name, text]
        end
      rescue Core::BadInput
        raise
      rescue StandardError # a spoilt directory trips rubyzip in many ways
        Reader.refuse("The archive is cut off or damaged; nothing was taken from it.")
      end
    end
  end
end
