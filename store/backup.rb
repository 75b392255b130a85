# frozen_string_literal: true

require "digest"
require "fileutils"
require "sqlite3"
require "time"
require "zip"

module Thistle
  module Store
    # Process: everything in one file: the database, copied by SQLite's online backup while others write, and the layers
    # beside it. Restore brings it back.
    #
    #   Backup.new(folder).write(path)    # => PackedCopy::Contents
    class Backup
      COPIES = "copies" # where copies lie, beside the data
      TRIES, PAUSE = 200, 0.05 # for a file that others write to, s

      class Refused < StandardError; end

      # One database over another, through SQLite: a reader's lock on the one, one writer's transaction on the other.
      # Raises Refused when others write all the time.
      def self.transfer(from, to)
        source, target = [from, to].map { |file| SQLite3::Database.new(file) }
        backup = SQLite3::Backup.new(target, "main", source, "main")
        TRIES.times do
          break if backup.step(-1) == SQLite3::Constants::ErrorCode::DONE

          sleep PAUSE
        end
        done = backup.remaining.zero?
        backup.finish
        raise Refused, "The file is too busy. Try again." unless done
      ensure
        [source, target].compact.each(&:close)
      end

      def initialize(folder)
        @folder = folder
      end

      # Writes one file, and reads it back; raises Refused when there is nothing to copy, it cannot be written, or it is
      # not whole. A copy that fails leaves no file.
      def write(path)
        raise Refused, "There is no #{PackedCopy::DATABASE} in #{@folder}." unless File.exist?(live)

        FileUtils.mkdir_p(File.dirname(path))
        WorkFolder.left(File.dirname(path))
        WorkFolder.within(File.dirname(path)) { |work| written(path, work) }
      rescue SystemCallError, SQLite3::Exception, Zip::Error => e
        raise Refused, "The copy could not be made: #{Database.fault?(e) ? Database.said(e) : e.message}"
      end

      private

      def live = File.join(@folder, PackedCopy::DATABASE)
      def layers = File.join(@folder, PackedCopy::LAYERS)

      def written(path, work)
        copy, packed = %w[copy.db copy.zip].map { |name| File.join(work, name) }
        self.class.transfer(live, copy)
        contents = look(copy)
        PackedCopy.new(packed).pack(copy, layers, contents)
        read_back(packed, File.join(work, "again"), contents)
        File.open(packed, &:fsync)
        File.rename(packed, path)
        contents
      end

      def look(copy)
        db = SQLite3::Database.new(copy, readonly: true)
        names = db.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite\\_%' " \
                           "ESCAPE '\\' ORDER BY name").flatten
        tables = names.to_h { |name| [name, db.get_first_value("SELECT COUNT(*) FROM \"#{name}\"")] }
        wanted = tables.key?("layers") ? db.execute("SELECT file FROM layers").flatten : []
        files = wanted.map { |file| File.join(layers, file) }.select { |file| File.file?(file) }
                      .to_h { |file| [File.basename(file), Digest::SHA256.file(file).hexdigest] }
        PackedCopy::Contents.new(made_at: Time.now.utc.iso8601, tables:, files:)
      ensure
        db&.close
      end

      # Is what was packed what was there?
      def read_back(packed, again, contents)
        FileUtils.mkdir_p(again)
        told = PackedCopy.new(packed).unpack(again)
        raise Refused, "What was written is not what was read." unless told.to_h == contents.to_h
      end
    end
  end
end
