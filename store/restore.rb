# frozen_string_literal: true

require "digest"
require "fileutils"
require "json"
require "securerandom"
require "sequel"
require "sqlite3"

module Thistle
  module Store
    # Process: everything back as it was in a copy, while a server may run. All is checked and laid ready first, the
    # layers under names that no other has; one step then makes it so, the database's transaction (or a rename, where no
    # sound database stands). Killed before it, what was there stands whole; after it, what was wanted; sweep takes away
    # what neither names.
    #
    #   Restore.new(folder).call(path)  # => PackedCopy::Contents
    class Restore
      LIST = "files.json" # in the work folder: layers that go unless the database names them
      VERSION = "PRAGMA data_version" # moves when another connection writes
      TRIES = 5 # when others write while the copy of what is there is made

      def initialize(folder, now: Time.now)
        @folder, @stamp = folder, now.utc.strftime("%Y%m%dT%H%M%SZ")
      end

      # Raises Backup::Refused, and changes nothing, when the copy is not whole or there is no room for it.
      def call(path)
        refuse "There is no file #{path}." unless File.file?(path)
        FileUtils.mkdir_p(layers)
        sweep
        WorkFolder.within(@folder) { |work| put_back(path, work) }
      rescue SystemCallError, SQLite3::Exception, Sequel::DatabaseError => e
        refuse "It could not be put back: #{Database.fault?(e) ? Database.said(e) : e.message}"
      end

      # Takes away what a restore or a copy left that was killed. One that cannot be told yet waits for the next time.
      def sweep
        WorkFolder.left(File.join(@folder, Backup::COPIES))
        WorkFolder.left(@folder) { |work| take_away(work) }
      rescue SQLite3::Exception, SystemCallError
        nil
      end

      private

      def live = File.join(@folder, PackedCopy::DATABASE)
      def layers = File.join(@folder, PackedCopy::LAYERS)
      def refuse(message) = raise(Backup::Refused, message)

      def put_back(path, work)
        contents = PackedCopy.new(path).unpack(work)
        copy = File.join(work, PackedCopy::DATABASE)
        fresh = fresh_names(contents)
        newer(copy, fresh)
        lay_ready(work, fresh)
        swap(copy)
        take_away(work)
        contents
      end

      # {a layer's file in the copy => its name here}: its own, unless other bytes bear it.
      def fresh_names(contents)
        contents.files.to_h do |file, sum|
          there = File.join(layers, file)
          taken = File.exist?(there) && Digest::SHA256.file(there).hexdigest != sum
          [file, taken ? "#{SecureRandom.hex(8)}#{File.extname(file)}" : file]
        end
      end

      # What opened the door when the copy was made, and may have been ended since: everybody signs in anew.
      OPENED = %i[account_active_session_keys account_remember_keys account_password_reset_keys].freeze
      private_constant :OPENED

      # The copy comes up to date, names its layers as they will lie here, and differs from whatever a running server
      # has kept of the years that it worked out.
      def newer(copy, fresh)
        db = Sequel.sqlite(copy)
        Sequel.extension :migration
        Sequel::Migrator.run(db, Database::MIGRATIONS)
        db.transaction do
          fresh.each { |file, name| db[:layers].where(file:).update(file: name) unless file == name }
          db[:properties].update(season_version: Sequel[:season_version] + Time.now.to_i)
          OPENED.each { |table| db[table].delete }
        end
      rescue Sequel::Migrator::Error
        refuse "The copy was made by a newer version of this program. Bring the program up to date first."
      ensure
        db&.disconnect
      end

      def sound? = @sound ||= named && read_whole
      def read_whole = reading { |db| db.get_first_value("PRAGMA quick_check") == "ok" }

      # The layers' files that the database here names: none without a database, nil when it cannot be read.
      def named
        return [] unless File.exist?(live)

        reading { |db| db.execute("SELECT file FROM layers").flatten }
      end

      def reading
        db = SQLite3::Database.new(live)
        db.busy_timeout = 10_000
        yield db
      rescue SQLite3::CorruptException, SQLite3::NotADatabaseException, SQLite3::SQLException
        nil
      ensure
        db&.close
      end

      # The list first, then what it names.
      def lay_ready(work, fresh)
        laid = fresh.reject { |_, name| File.exist?(File.join(layers, name)) }
        File.write(File.join(work, LIST), JSON.generate([*named, *laid.values]))
        laid.each { |file, name| move(File.join(work, PackedCopy::LAYERS, file), File.join(layers, name)) }
        synced(layers)
      end

      # What is there now stays as a copy, with all that was written until the swap.
      def swap(copy)
        return swap_broken(copy) unless File.exist?(live) && sound?

        db = SQLite3::Database.new(live)
        TRIES.times do
          version = db.get_first_value(VERSION)
          Backup.new(@folder).write(aside("before-restore", ".zip"))
          return Backup.transfer(copy, live) if db.get_first_value(VERSION) == version
        end
        refuse "Others write all the time. Stop the server, then restore again."
      ensure
        db&.close
      end

      # A database that is broken stays as it is, under another name.
      def swap_broken(copy)
        alone do
          { live => ".db", "#{live}-wal" => ".db-wal" }.select { |file, _| File.exist?(file) }
                                                       .each { |file, ending| keep(file, aside("broken", ending)) }
          FileUtils.rm_f(%W[#{live}-wal #{live}-shm]) # of another file than the one that comes
          move(copy, live)
          synced(@folder)
        end
      end

      def keep(file, to)
        FileUtils.mkdir_p(File.dirname(to))
        FileUtils.cp(file, to)
        synced(to)
      end

      def aside(what, ending) = File.join(@folder, Backup::COPIES, "#{what}-#{@stamp}#{ending}")

      # A server would go on writing into the file that was there.
      def alone
        File.open(@folder) do |lock|
          unless lock.flock(File::LOCK_EX | File::LOCK_NB)
            refuse "The database is broken or gone, and a server has it open. Stop the server, then restore again."
          end
          yield
        end
      end

      def move(from, to)
        synced(from)
        File.rename(from, to)
      end

      # On the disk, not on its way there.
      def synced(path) = File.open(path, &:fsync)

      def take_away(work)
        list = File.join(work, LIST)
        return unless File.exist?(list)

        names = named or raise SQLite3::CorruptException
        (JSON.parse(File.read(list)) - names).each { |file| FileUtils.rm_f(File.join(layers, file)) }
      rescue JSON::ParserError
        nil # killed while it was written: nothing was laid yet
      end
    end
  end
end
