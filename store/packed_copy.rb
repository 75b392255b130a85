# frozen_string_literal: true

require "digest"
require "fileutils"
require "json"
require "sqlite3"
require "zip"

module Thistle
  module Store
    # Process: a copy's file: a zip of what it holds (the manifest), the database, and the layers beside it.
    #
    #   PackedCopy.new(path).pack(database, layers, contents)
    #   PackedCopy.new(path).unpack(folder)                    # => Contents, checked
    class PackedCopy
      # tables: {name => rows}; files: {layer file => SHA-256}.
      Contents = Core::Value.define(:made_at, :tables, :files)
      DATABASE, MANIFEST, LAYERS = "thistle.db", "manifest.json", "layers"

      def initialize(path)
        @path = path
      end

      # database: a file's path, layers: the folder of the contents' files.
      def pack(database, layers, contents)
        Zip::OutputStream.open(@path) do |zip|
          zip.put_next_entry(MANIFEST)
          zip.write(JSON.pretty_generate(contents.to_h))
          kept = contents.files.to_h { |file, _| ["#{LAYERS}/#{file}", File.join(layers, file)] }
          { DATABASE => database, **kept }.each do |name, file|
            zip.put_next_entry(name)
            File.open(file, "rb") { |io| IO.copy_stream(io, zip) }
          end
        end
      end

      # Everything into a folder, as DATABASE and LAYERS, and checked against what the manifest says. Raises
      # Backup::Refused when something of it is missing, broken or changed.
      def unpack(folder)
        FileUtils.mkdir_p(File.join(folder, LAYERS))
        contents = Zip::File.open(@path) do |zip|
          told(zip).tap do |told|
            [DATABASE, *told.files.keys.map { |file| "#{LAYERS}/#{file}" }].each { |name| extract(zip, name, folder) }
          end
        end
        check(folder, contents)
        contents
      rescue Zip::Error
        strange
      end

      private

      def refuse(message) = raise(Backup::Refused, message)
      def strange = refuse("#{File.basename(@path)} is not a copy that this program made, or it is broken.")

      def told(zip)
        manifest = zip.find_entry(MANIFEST) or strange
        said = JSON.parse(zip.read(manifest))
        strange unless said.is_a?(Hash) && said.values_at("tables", "files").all?(Hash)
        strange if said["files"].keys.any? { |file| file != File.basename(file) || file.start_with?(".") }
        Contents.new(made_at: said["made_at"], tables: said["tables"], files: said["files"])
      rescue JSON::ParserError
        strange
      end

      def extract(zip, name, folder)
        entry = zip.find_entry(name) or refuse "#{name} is missing from the copy."
        File.open(File.join(folder, name), "wb") { |io| IO.copy_stream(entry.get_input_stream, io) }
      end

      def check(folder, contents)
        db = SQLite3::Database.new(File.join(folder, DATABASE))
        refuse "The database in the copy is broken." unless db.get_first_value("PRAGMA integrity_check") == "ok"
        refuse "Records in the copy belong to nothing." if db.execute("PRAGMA foreign_key_check").any?
        count(db, contents.tables)
        contents.files.each do |file, sum|
          found = Digest::SHA256.file(File.join(folder, LAYERS, file)).hexdigest
          refuse "The layer #{file} is not as it was copied." unless found == sum
        end
      rescue SQLite3::Exception
        refuse "The database in the copy is broken."
      ensure
        db&.close
      end

      def count(db, tables)
        tables.each do |table, rows|
          found = db.get_first_value("SELECT COUNT(*) FROM \"#{table.delete('"')}\"")
          refuse "The copy should hold #{rows} rows of #{table}, and holds #{found}." unless found == rows
        end
      end
    end
  end
end
