# frozen_string_literal: true

require "zip"

module Thistle
  module Store
    module Bundle
      # Reading: a bundle's zip, checked against its own manifest before anything is taken from it. Raises
      # Core::BadInput (field :file) for what is no bundle, is damaged, newer than this program, or unpacks to too much.
      class Reader
        MOST = 2 * 1024 * 1024 * 1024 # bytes that it may unpack to
        RATIO = 400 # unpacked over packed

        attr_reader :manifest

        def initialize(path)
          @zip = Zip::File.open(path)
          @left = [MOST, RATIO * [File.size(path), 65_536].max].min
          @manifest = read_manifest
          check
        rescue Zip::Error, JSON::ParserError, TypeError, NoMethodError
          refuse "The file is no bundle of this program, or it is damaged."
        end

        def copy = manifest["copy"]
        def properties = manifest["properties"]

        # Rows of a table, [{"id", "was", "row"}], or plain rows where they have no id.
        def rows(name) = @tables.fetch(name, [])

        # The bytes of a file in it; nil where it is not there.
        def file(name) = @zip.find_entry(name)&.get_input_stream&.read

        # {name of a layer's file => bytes}, one at a time.
        def layers
          manifest["files"].each_key.grep(%r{\Alayers/[\w.-]+\z}).each { |name| yield File.basename(name), file(name) }
        end

        private

        def refuse(words) = raise(Core::BadInput.new(words, field: :file))

        def read_manifest
          told = JSON.parse(unpacked("manifest.json") || "{}")
          refuse "The file is no bundle of this program." unless told["format"] == FORMAT && told["copy"].is_a?(String)
          if told["version"] > VERSION || told["schema"] > Sequel::Model.db[:schema_info].get(:version)
            refuse "The bundle was made by a newer program: bring this one up to date first."
          end
          told
        end

        def unpacked(name)
          entry = @zip.find_entry(name) or return
          bytes = entry.get_input_stream.read(@left + 1) || +"" # nil at once is an empty file
          @left -= bytes.bytesize
          refuse "The bundle unpacks to more than its size allows." if @left.negative?
          bytes
        end

        # Every file is as the manifest says, and every table holds what it should.
        def check
          @tables = manifest["files"].to_h do |name, sum|
            bytes = unpacked(name)
            refuse "#{name} of the bundle is missing or damaged." unless bytes && Digest::SHA256.hexdigest(bytes) == sum
            [name[%r{\Atables/(\w+)\.jsonl\z}, 1], name.start_with?("tables/") ? bytes : nil]
          end.compact.slice(*TABLES.keys).transform_values { |text| lines(text) }
        end

        def lines(bytes)
          bytes.force_encoding(Encoding::UTF_8).each_line.map { |line| JSON.parse(line) }
        end
      end
    end
  end
end
