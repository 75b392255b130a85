# frozen_string_literal: true

require "digest"
require "yaml"

module Thistle
  module Store
    # A property, or several, as one zip of open formats: a manifest with versions, counts and checksums, a file of JSON
    # lines a table, pictures and layers as files. Another copy opens it, or merges it into what it has: each row is
    # known by its gid, "COPY/ID" of the copy that made it, wherever it goes. What tables hold and point to stands in
    # bundle_tables.yml.
    module Bundle
      FORMAT, VERSION = "nimble-thistle-bundle", 1
      # refs: {column => table}; the rest as bundle_tables.yml says.
      Table = Core::Value.define(:name, :own, :by, :key, :refs, :lists, :keyed, :alike, :unique, :worked_out, :kept_ids,
                                 :blob, :private, :secret, :follows, :points, :grouped) do
        # Is a row one by its id?
        def numbered? = key.nil?

        # {column => table} that a row points to.
        def refs_of(row)
          return refs unless points

          table = points[:tables][row[points[:by]].to_s.to_sym]
          table ? refs.merge(points[:column] => table) : refs
        end

        # Is it a row that follows from others, and is worked out anew where rows come together?
        def follows?(row) = follows && !row[follows].nil?
      end

      LISTED, MAPPED = %i[worked_out kept_ids private secret].freeze, %i[refs lists keyed].freeze
      TOLD = %i[own by key alike unique blob follows points grouped].freeze
      private_constant :LISTED, :MAPPED, :TOLD

      TABLES = YAML.safe_load_file("#{__dir__}/bundle_tables.yml", symbolize_names: true).to_h do |name, told|
        maps = MAPPED.to_h { |field| [field, told.fetch(field, {}).to_h { |one, table| [one.to_s, table] }] }
        lists = LISTED.to_h { |field| [field, told.fetch(field, [])] }
        [name.to_s, Table.new(name: name.to_s, **lists, **maps, **TOLD.to_h { |field| [field, told[field]] })]
      end.freeze

      module_function

      # What this copy calls itself.
      def copy = Setting.read("copy")
      def gid(number) = "#{copy}/#{number}"
      def number(gid) = gid[%r{/(\d+)\z}, 1].to_i
      def ours?(gid) = gid.start_with?("#{copy}/")

      # What a row says, as one text to compare: without what follows from others, and what may be left out.
      def digest(table, row)
        said = row.except("id", *table.worked_out, *table.kept_ids, *table.private)
        Digest::SHA256.hexdigest(JSON.generate(said.sort))
      end

      # Rows as SQLite holds them, [{column => value}], in the order of their ids.
      def raw(sql, *values)
        Sequel::Model.db.synchronize do |connection|
          statement = connection.prepare(sql)
          names = statement.columns
          statement.execute(*values).map { |row| names.zip(row).to_h }
        ensure
          statement&.close
        end
      end
    end
  end
end
