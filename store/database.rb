# frozen_string_literal: true

require "fileutils"
require "sequel"

module Thistle
  module Store
    # The one SQLite file. WAL, foreign keys, synchronous=FULL: what was acknowledged survives a power cut.
    # Opening it backs it up when its schema is older than the code, then brings it up to date.
    module Database
      MIGRATIONS = "#{ROOT}/store/migrations".freeze
      # A large import holds the file for a while; others wait.
      PRAGMAS = ["PRAGMA journal_mode=WAL", "PRAGMA foreign_keys=ON", "PRAGMA synchronous=FULL", "PRAGMA busy_timeout=60000"].freeze

      class << self
        attr_reader :path

        # Did opening bring an older file up to date? Then what follows from shapes wants working out.
        def upgraded? = @upgraded

        # Opens (or makes) the file and binds the models to it. Call it before a model is used.
        def open(path)
          FileUtils.mkdir_p(File.dirname(path))
          @path = path
          Sequel.extension :migration
          Sequel.default_timezone = :utc
          db = Sequel.sqlite(path, max_connections: 8, after_connect: ->(raw) { PRAGMAS.each { |sql| raw.execute(sql) } })
          db.transaction_mode = :immediate # a writer waits for its turn at the start, where waiting is safe
          bring_up_to_date(db, path)
          Sequel::Model.plugin :timestamps, update_on_create: true
          Sequel::Model.db = db
        end

        def close = Sequel::Model.db.disconnect

        private

        def bring_up_to_date(db, path)
          return if Sequel::Migrator.is_current?(db, MIGRATIONS)

          @upgraded = db.table_exists?(:properties)
          back_up(db, path) if @upgraded
          Sequel::Migrator.run(db, MIGRATIONS)
        end

        def back_up(db, path)
          copy = "#{path}.before-#{Time.now.utc.strftime("%Y%m%dT%H%M%SZ")}"
          db.run("VACUUM INTO #{db.literal(copy)}")
        end
      end
    end
  end
end
