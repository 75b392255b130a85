# frozen_string_literal: true

require "sequel"
require_relative "writers"

module Thistle
  # docs/schema.md, written from a database that the migrations just made: each table with its columns, what they point
  # at, and the rooms that write it.
  class SchemaPage
    HEAD = <<~MARKDOWN
      # Tables

      Written by `rake schema` from the migrations; do not edit. Rooms that write a table stand in ARCHITECTURE.md. Where
      the code says more of a column, it is in the model's file. Quantities are SI (`_m`, `_m2`, `_ml`), days are ISO
      dates, instants are UTC.
    MARKDOWN
    OWN = /\A(?:sqlite_|schema_info|\w+_(?:rowid|node|parent|data|idx|content|docsize|config)\z)/ # SQLite's own
    TOP = "house" # store/*.rb

    def text
      by_room = tables.group_by { |table| room(table) }
      parts = by_room.sort.map do |room, some|
        "## #{room.capitalize}\n\n#{some.sort.map do |one|
          table(one)
        end.join("\n")}"
      end
      [HEAD, *parts].join("\n")
    end

    private

    def db
      @db ||= Sequel.sqlite.tap do |made|
        Sequel.extension :migration
        Sequel::Migrator.run(made, Store::Database::MIGRATIONS)
      end
    end

    def tables = db.tables.map(&:to_s).grep_v(OWN)

    # The folder of the table's model, else the room that writes it.
    def room(table)
      models[table] || Writers.allowed.find { |_, some| some.include?(table) }&.first || TOP
    end

    def models
      @models ||= Dir["#{ROOT}/store/**/*.rb"].each_with_object({}) do |path, all|
        named = File.read(path)[/Sequel::Model\(:(\w+)\)/, 1] or next
        all[named] = path.delete_prefix("#{ROOT}/store/")[%r{\A(\w+)/}, 1] || TOP
      end
    end

    def table(name)
      writers = Writers.allowed.select { |_, some| some.include?(name) }.keys
      said = writers.any? ? "Written by #{writers.join(", ")}." : "Written by triggers or by nothing that tests reach."
      "### #{name}\n#{said}\n\n| column | type | |\n|---|---|---|\n#{columns(name).join("\n")}\n"
    end

    def columns(name)
      points = db.foreign_key_list(name.to_sym).to_h { |key| [key[:columns].first, key[:table]] }
      db.schema(name.to_sym).map do |column, told|
        notes = [("key" if told[:primary_key]), ("always" unless told[:allow_null] || told[:primary_key]),
                 points[column] && "→ #{points[column]}"].compact
        "| #{column} | #{told[:db_type]} | #{notes.join(", ")} |"
      end
    end
  end
end
