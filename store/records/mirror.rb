# frozen_string_literal: true

require "yaml"

module Thistle
  module Store
    # Process: keeps a copy of chosen properties in PostgreSQL with PostGIS, for a network's analysts: one schema for
    # many groups, every row under its copy and its id, shapes as geometries. Only what changed since is taken over, by
    # the numbers of `row_changes`; each batch is one transaction there together with how far it came, so that it may be
    # stopped at any moment. It never writes to this copy's records.
    #
    #   Store::Mirror.new(url, prefixes: ["Q"]).call  # => {"patches" => 120, …}: rows taken over
    class Mirror
      BATCH = 1000 # rows in one transaction
      SCHEMA = "thistle"
      TABLES = YAML.safe_load_file("#{__dir__}/mirror_tables.yml").freeze
      # Where the mirror's own properties are chosen anew, all of it is taken over again.
      class Refused < StandardError
      end

      # url: postgres://user@host/database. prefixes: code letters of properties; none for all. rebuild: from nothing.
      def initialize(url, prefixes: [], rebuild: false)
        @there = Sequel.connect(url)
        raise Refused, "A mirror is kept in PostgreSQL." unless @there.database_type == :postgres

        @here, @rebuild, @taken = Sequel::Model.db, rebuild, Hash.new(0)
        @ids = Property.order(:id).all.select { |one| prefixes.empty? || prefixes.include?(one.prefix) }.map(&:id)
        raise Refused, "There is no property of these letters." if @ids.empty?
      rescue Sequel::DatabaseConnectionError => e
        raise Refused, "The database does not answer: #{e.message.lines.first.strip}"
      end

      # {table => rows taken over or taken away}.
      def call
        watch
        self.class.lay_out(@there)
        last = begin_again? ? from_nothing : state[:number]
        follow(last)
        @taken
      ensure
        @there.disconnect
      end

      # The tables of a mirror in a PostgreSQL database, those that are not there yet.
      def self.lay_out(there)
        there.run("CREATE EXTENSION IF NOT EXISTS postgis")
        there.run("CREATE SCHEMA IF NOT EXISTS #{SCHEMA}")
        there.run("CREATE TABLE IF NOT EXISTS #{SCHEMA}.copies (copy uuid PRIMARY KEY, number bigint NOT NULL, " \
                  "properties jsonb NOT NULL, mirrored_at timestamptz NOT NULL)")
        TABLES.each { |name, told| lay_out_table(there, name, told) }
      end

      def self.lay_out_table(there, name, told)
        columns = told["columns"].map { |column, type| "#{column} #{type}" }
        columns << "shape geometry(Geometry, 4326)" if told["shape"]
        there.run("CREATE TABLE IF NOT EXISTS #{SCHEMA}.#{name} (copy uuid NOT NULL, id bigint NOT NULL, " \
                  "#{columns.join(", ")}, PRIMARY KEY (copy, id))")
        return unless told["shape"]

        there.run("CREATE INDEX IF NOT EXISTS #{name}_shape ON #{SCHEMA}.#{name} USING gist (shape)")
      end
      private_class_method :lay_out_table

      # Ends the watch: nothing is noted any more.
      def self.forget
        db = Sequel::Model.db
        TABLES.each_key { |name| %w[in up out].each { |act| db.run("DROP TRIGGER IF EXISTS mirror_#{name}_#{act}") } }
        db[:row_changes].delete
      end

      private

      def copy = @copy ||= Bundle.copy
      def mirrored(name) = @there[Sequel.qualify(SCHEMA, name)]
      def state = mirrored(:copies).first(copy:)

      # Every change of a row is noted from now on.
      def watch
        TABLES.each_key do |name|
          { "in" => %w[INSERT NEW], "up" => %w[UPDATE NEW], "out" => %w[DELETE OLD] }.each do |key, (act, row)|
            @here.run("CREATE TRIGGER IF NOT EXISTS mirror_#{name}_#{key} AFTER #{act} ON #{name} BEGIN " \
                      "INSERT OR REPLACE INTO row_changes (name, row_id) VALUES ('#{name}', #{row}.id); END")
          end
        end
      end

      def begin_again?
        known = state
        @rebuild || known.nil? || JSON.parse(known[:properties]) != @ids
      end

      # Everything, a batch at a time; what changes meanwhile is followed after.
      def from_nothing
        last = @here[:row_changes].max(:number).to_i
        @there.transaction do
          TABLES.keys.reverse_each { |name| mirrored(name.to_sym).where(copy:).delete }
          mirrored(:copies).where(copy:).delete
        end
        TABLES.each_key { |name| all_of(name) }
        reached(last)
        last
      end

      def all_of(name)
        last = 0
        loop do
          rows = rows_of(name, "t.id > ?", last)
          break if rows.empty?

          @there.transaction { put(name, rows) }
          last = rows.last["id"]
        end
      end

      # What changed since a number, in its order.
      def follow(last)
        loop do
          changes = @here[:row_changes].where(Sequel[:number] > last).order(:number).limit(BATCH).all
          break if changes.empty?

          last = changes.last[:number]
          @there.transaction do
            changes.group_by { |change| change[:name] }.sort_by { |name, _| TABLES.keys.index(name) }
                   .each { |name, some| take_over(name, some.map { |change| change[:row_id] }) }
            reached(last)
          end
        end
      end

      def take_over(name, ids)
        rows = rows_of(name, "t.id IN (SELECT value FROM json_each(?))", JSON.generate(ids))
        gone = ids - rows.map { |row| row["id"] }
        @taken[name] += mirrored(name.to_sym).where(copy:, id: gone).delete if gone.any?
        put(name, rows)
      end

      # Rows of the chosen properties as SQLite holds them, in the order of their ids.
      def rows_of(name, condition, value)
        told = TABLES.fetch(name)
        columns = ["id", *told["columns"].keys, *told["shape"]].uniq.map { |column| "t.#{column}" }.join(", ")
        Bundle.raw("SELECT #{columns} FROM #{name} t WHERE #{condition} AND #{chosen(told["by"])} ORDER BY t.id " \
                   "LIMIT #{BATCH}", value)
      end

      def chosen(by)
        list = "(#{@ids.join(", ")})"
        case by
        when nil then "t.id IN #{list}"
        when "property_id" then "t.property_id IN #{list}"
        else "t.patch_id IN (SELECT id FROM patches WHERE property_id IN #{list})"
        end
      end

      # Rows as they stand now, in place of what was there.
      def put(name, rows)
        return if rows.empty?

        told = TABLES.fetch(name)
        ready = rows.map { |row| ready(row, told) }
        others = ready.first.keys - %i[copy id]
        mirrored(name.to_sym)
          .insert_conflict(target: %i[copy id], update: others.to_h { |one| [one, Sequel.qualify(:excluded, one)] })
          .multi_insert(ready)
        @taken[name] += rows.size
      end

      def ready(row, told)
        plain = told["columns"].to_h { |column, type| [column.to_sym, value(row[column], type)] }
        shape = told["shape"] ? { shape: geometry(row[told["shape"]]) } : {}
        { copy:, id: row["id"], **plain, **shape }
      end

      def value(raw, type)
        return raw == 1 if type == "boolean" && !raw.nil?

        type == "timestamptz" && raw ? Sequel.lit("?::timestamptz", "#{raw} UTC") : raw
      end

      def geometry(text)
        text && Sequel.function(:st_setsrid, Sequel.function(:st_geomfromgeojson, text), 4326)
      end

      def reached(number)
        row = { copy:, number:, properties: JSON.generate(@ids), mirrored_at: Time.now.utc }
        mirrored(:copies).insert_conflict(target: :copy, update: row.except(:copy)).insert(row)
      end
    end
  end
end
