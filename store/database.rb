# frozen_string_literal: true

require "fileutils"
require "sequel"
require "sqlite3"

module Thistle
  module Store
    # Process: the one SQLite file. WAL, foreign keys, synchronous=FULL: what was acknowledged survives a power cut.
    # Opening it backs it up when its schema is older than the code, then brings it up to date.
    module Database
      MIGRATIONS = "#{ROOT}/store/migrations".freeze
      PRAGMAS = ["PRAGMA journal_mode=WAL", "PRAGMA foreign_keys=ON", "PRAGMA synchronous=FULL",
                 "PRAGMA wal_autocheckpoint=4000"].freeze # pages of 4 kB: what many small writes share
      WAIT_MS = 20_000 # that a writer waits for its turn
      CONNECTIONS = 32 # a thread each, background work too

      class << self
        attr_reader :path

        # Did opening bring an older file up to date? Then what follows from shapes wants working out.
        def upgraded? = @upgraded

        # Opens (or makes) the file and binds the models to it. Call it before a model is used.
        def open(path)
          FileUtils.mkdir_p(File.dirname(path))
          @path = path
          stand_by(File.dirname(path))
          SQLite3::ForkSafety.suppress_warnings! # a fork that reads a file (Core::Apart) closes what it inherits
          Sequel.extension :migration
          Sequel.default_timezone = :utc
          db = Sequel.sqlite(path, max_connections: CONNECTIONS, pool_timeout: 30, after_connect: method(:prepare))
          AsWritten.read_by(db)
          db.transaction_mode = :immediate # a writer waits for its turn at the start, where waiting is safe
          bring_up_to_date(db, path)
          Sequel::Model.plugin :timestamps, update_on_create: true
          Sequel::Model.db = db
        end

        def close = Sequel::Model.db.disconnect

        # The file for a process that was forked, which may use none of what was open: to read, and nothing else.
        def reader = Sequel.sqlite(path, readonly: true, keep_reference: false)

        # A fault of the file, in words: what is wrong, and what to do.
        def said(error)
          FAULTS.find { |sign, _| error.message.match?(sign) }&.last || BROKEN
        end

        # Is it a fault of the file or its disk, rather than of what was asked of it?
        def fault?(error)
          error.is_a?(Sequel::PoolTimeout) || FAULTS.any? { |sign, _| error.message.match?(sign) }
        end

        BROKEN = "it is not a file of this program, or it is broken. Restore a copy with bin/thistle restore."
        FAULTS = { /disk is full|no space left|quota|file too large/i => "the disk is full. Make room, then try again.",
                   /disk I.O error|input.output error/i =>
                     "the disk did not take it. It may be full or broken: look at it, then try again.",
                   /readonly|read-only|unable to open|permission denied/i =>
                     "the data folder is read-only. Give this user the right to write there.",
                   /is locked|is busy|connect(ion)? pool|timeout/i =>
                     "too many are writing at this moment. Try again." }.freeze

        private

        # While the file is open nobody puts another in its place (Restore).
        def stand_by(folder)
          @held&.close
          @held = File.new(folder).tap { |held| held.flock(File::LOCK_SH) }
        end

        # Waiting for the file sleeps in Ruby: SQLite's own wait would hold the interpreter's lock, so that whoever has
        # the file could not finish.
        def prepare(raw)
          raw.busy_handler_timeout = WAIT_MS
          PRAGMAS.each { |sql| raw.execute(sql) }
          TrailNotes.on(raw)
        end

        def bring_up_to_date(db, path)
          return if Sequel::Migrator.is_current?(db, MIGRATIONS)

          @upgraded = db.table_exists?(:properties)
          back_up(db, path) if @upgraded
          Sequel::Migrator.run(db, MIGRATIONS)
          db.disconnect # connections to come know all tables
        end

        def back_up(db, path)
          copy = "#{path}.before-#{Time.now.utc.strftime("%Y%m%dT%H%M%SZ")}"
          db.run("VACUUM INTO #{db.literal(copy)}")
        end
      end
    end
  end
end
