# frozen_string_literal: true

require "digest"
require "fileutils"
require "json"
require "sequel"
require "sqlite3"
require "time"
require "tmpdir"
require "zip"

module Thistle
  module Store
    # Process: everything in one file: the database, copied by SQLite's online backup while others write, and the layers
    # beside it. On the way back it is checked whole before anything of it is used, and what was there is kept as a
    # copy.
    #
    #   Backup.new(folder).write(path)    # => Contents
    #   Backup.new(folder).restore(path)  # => Contents
    class Backup
      # tables: {name => rows}; files: {layer file => SHA-256}.
      Contents = Core::Value.define(:made_at, :tables, :files)
      DATABASE, MANIFEST, LAYERS, COPIES = "thistle.db", "manifest.json", "layers", "copies"
      TRIES, PAUSE = 200, 0.05 # for a file that others write to, s

      class Refused < StandardError; end

      def initialize(folder)
        @folder = folder
      end

      # Writes one file, and reads it back; raises Refused when there is nothing to copy, it cannot be written, or it is
      # not whole. A copy that fails leaves no file.
      def write(path)
        refuse "There is no #{DATABASE} in #{@folder}." unless File.exist?(live)
        FileUtils.mkdir_p(File.dirname(path))
        part = "#{path}.part"
        Dir.mktmpdir("thistle", File.dirname(path)) do |work|
          copy = File.join(work, DATABASE)
          transfer(live, copy)
          contents = look(copy)
          pack(part, copy, contents)
          read_back(part, work, contents)
          File.rename(part, path)
          contents
        end
      rescue SystemCallError, SQLite3::Exception, Zip::Error => e
        refuse "The copy could not be made: #{e.message}."
      ensure
        FileUtils.rm_f(part) if part
      end

      # Puts everything back as it was in a copy. Raises Refused, and changes nothing, when the copy is not whole.
      def restore(path)
        refuse "There is no file #{path}." unless File.file?(path)
        FileUtils.mkdir_p(@folder)
        Dir.mktmpdir("thistle", @folder) do |work|
          contents = unpack(path, work)
          check(work, contents)
          File.exist?(live) && write(File.join(@folder, COPIES,
                                               "before-restore-#{Time.now.utc.strftime("%Y%m%dT%H%M%SZ")}.zip"))
          put_back(work, contents)
          contents
        end
      rescue SystemCallError, SQLite3::Exception, Zip::Error => e
        refuse "It could not be put back: #{e.message}."
      end

      private

      def live = File.join(@folder, DATABASE)
      def layers = File.join(@folder, LAYERS)
      def refuse(message) = raise(Refused, message)

      # One database over another, page by page, through SQLite: a reader's lock on the one, a writer's on the other.
      def transfer(from, to)
        source, target = [from, to].map { |file| SQLite3::Database.new(file) }
        backup = SQLite3::Backup.new(target, "main", source, "main")
        TRIES.times do
          break if backup.step(-1) == SQLite3::Constants::ErrorCode::DONE

          sleep PAUSE
        end
        done = backup.remaining.zero?
        backup.finish
        refuse "The file is too busy. Try again." unless done
      ensure
        [source, target].compact.each(&:close)
      end

      def look(copy)
        db = SQLite3::Database.new(copy, readonly: true)
        names = db.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite\\_%' " \
                           "ESCAPE '\\' ORDER BY name").flatten
        tables = names.to_h { |name| [name, db.get_first_value("SELECT COUNT(*) FROM \"#{name}\"")] }
        wanted = tables.key?("layers") ? db.execute("SELECT file FROM layers").flatten : []
        present = wanted.select { |file| File.file?(File.join(layers, file)) }
        Contents.new(made_at: Time.now.utc.iso8601, tables:, files: present.to_h do |file|
          [file, Digest::SHA256.file(File.join(layers, file)).hexdigest]
        end)
      ensure
        db&.close
      end

      def pack(path, copy, contents)
        Zip::OutputStream.open(path) do |zip|
          zip.put_next_entry(MANIFEST)
          zip.write(JSON.pretty_generate(contents.to_h))
          kept = contents.files.to_h { |file, _| ["#{LAYERS}/#{file}", File.join(layers, file)] }
          { DATABASE => copy, **kept }.each do |name, file|
            zip.put_next_entry(name)
            File.open(file, "rb") { |io| IO.copy_stream(io, zip) }
          end
        end
      end

      # Is what was packed what was there?
      def read_back(part, work, contents)
        again = File.join(work, "again")
        told = unpack(part, again)
        refuse "What was written is not what was read." unless told.to_h == contents.to_h
        check(again, contents)
      end

      def unpack(path, work)
        FileUtils.mkdir_p(File.join(work, LAYERS))
        Zip::File.open(path) do |zip|
          manifest = zip.find_entry(MANIFEST) or refuse "#{File.basename(path)} is not a copy that this program made."
          told = JSON.parse(zip.read(manifest))
          contents = Contents.new(made_at: told["made_at"], tables: told["tables"], files: told["files"])
          extract(zip, DATABASE, File.join(work, DATABASE))
          contents.files.each_key do |file|
            extract(zip, "#{LAYERS}/#{File.basename(file)}", File.join(work, LAYERS, File.basename(file)))
          end
          contents
        end
      rescue JSON::ParserError, Zip::Error
        refuse "#{File.basename(path)} is not a copy that this program made, or it is broken."
      end

      def extract(zip, name, path)
        entry = zip.find_entry(name) or refuse "#{name} is missing from the copy."
        File.open(path, "wb") { |io| IO.copy_stream(entry.get_input_stream, io) }
      end

      def check(work, contents)
        copy = File.join(work, DATABASE)
        db = SQLite3::Database.new(copy)
        refuse "The database in the copy is broken." unless db.get_first_value("PRAGMA integrity_check") == "ok"
        refuse "Records in the copy belong to nothing." if db.execute("PRAGMA foreign_key_check").any?
        contents.tables.each do |table, rows|
          found = db.get_first_value("SELECT COUNT(*) FROM \"#{table.delete('"')}\"")
          refuse "The copy should hold #{rows} rows of #{table}, and holds #{found}." unless found == rows
        end
        contents.files.each do |file, sum|
          unless Digest::SHA256.file(File.join(work, LAYERS, file)).hexdigest == sum
            refuse "The layer #{file} is not as it was copied."
          end
        end
      rescue SQLite3::Exception
        refuse "The database in the copy is broken."
      ensure
        db&.close
      end

      # Layers first, under names that nothing else has; then the database, in one go; then what nothing names goes.
      def put_back(work, contents)
        copy = File.join(work, DATABASE)
        newer(copy)
        FileUtils.mkdir_p(layers)
        contents.files.each_key { |file| FileUtils.cp(File.join(work, LAYERS, file), File.join(layers, file)) }
        transfer(copy, live)
        (Dir.children(layers) - contents.files.keys).each { |file| FileUtils.rm_f(File.join(layers, file)) }
      end

      # Comes up to date, and differs from whatever a running server has kept of the years that it worked out.
      def newer(copy)
        db = Sequel.sqlite(copy)
        Sequel.extension :migration
        Sequel::Migrator.run(db, Database::MIGRATIONS)
        db[:properties].update(season_version: Sequel[:season_version] + Time.now.to_i)
      ensure
        db&.disconnect
      end
    end
  end
end
