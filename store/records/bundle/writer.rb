# frozen_string_literal: true

require "zip"

module Thistle
  module Store
    module Bundle
      # Process: writes a bundle; it only reads this copy. Rows stand in the order of their gids, so that the same
      # records are the same bytes in whatever copy.
      class Writer
        # whole: with what is private of people (health limits, whom to call).
        def initialize(properties, whole: false)
          @ids, @whole = { "properties" => properties.map(&:id) }, whole
          @groups = properties.map(&:group_id).uniq
          @names, @known = properties.map(&:name), Known.new
        end

        # Writes the zip to a path; the manifest.
        def write(path, made_on:)
          @sums = {}
          Zip::OutputStream.open(path) do |zip|
            @zip = zip
            tables = TABLES.values.to_h { |table| [table.name, rows(table)] }
            layers
            manifest = manifest(tables, made_on)
            put("manifest.json", JSON.pretty_generate(manifest))
            manifest
          end
        end

        private

        def manifest(tables, made_on)
          { format: FORMAT, version: VERSION, schema: Sequel::Model.db[:schema_info].get(:version), copy: Bundle.copy,
            made_on:, properties: @names, private: @whole, tables:, files: @sums.sort.to_h }
        end

        def put(name, bytes)
          @zip.put_next_entry(name)
          @zip.write(bytes)
          @sums[name] = Digest::SHA256.hexdigest(bytes) unless name == "manifest.json"
        end

        # {rows, sha256} of a table, once it is written.
        def rows(table)
          found = of_table(table)
          @ids[table.name] = found.map { |row| row["id"] } if table.numbered?
          lines = found.map { |row| line(table, row) }.sort_by(&:first).map(&:last)
          put("tables/#{table.name}.jsonl", "#{lines.join("\n")}#{"\n" if lines.any?}")
          { rows: lines.size, sha256: @sums["tables/#{table.name}.jsonl"] }
        end

        def of_table(table)
          return pointing(table) if table.points
          return of_groups(table) unless table.own || table.by

          column, among = table.own ? %w[id properties] : [table.by, table.refs.fetch(table.by)]
          ids = JSON.generate(@ids.fetch(among))
          Bundle.raw("SELECT * FROM #{table.name} WHERE #{column} IN (SELECT value FROM json_each(?))", ids)
        end

        # What the groups of these properties have.
        def of_groups(table)
          Bundle.raw("SELECT * FROM #{table.name} WHERE group_id IN (SELECT value FROM json_each(?))",
                     JSON.generate(@groups))
        end

        # Rows that point to what is in the bundle, whatever its kind.
        def pointing(table)
          column, kind, tables = table.points.values_at(:column, :by, :tables)
          tables.flat_map do |value, among|
            ids = JSON.generate(@ids.fetch(among))
            Bundle.raw("SELECT * FROM #{table.name} WHERE #{kind} = ? AND #{column} IN " \
                       "(SELECT value FROM json_each(?))", value.to_s, ids)
          end
        end

        # [what it is sorted by, the row as a line]
        def line(table, row)
          row = row.merge(table.private.to_h { |column| [column, nothing(column)] }) unless @whole
          said = @known.plain(table, row)
          said[table.blob] = file(table, said) if table.blob
          return [said.values_at(*table.key).join(" "), JSON.generate(said.sort.to_h)] unless table.numbered?

          digest, was = Bundle.digest(table, said), @known.digest(table.name, row["id"])
          told = { "id" => said["id"], "was" => (was if was != digest), "row" => said.except("id").sort.to_h }.compact
          [said["id"], JSON.generate(told)]
        end

        # What stands in a column whose content is left out.
        def nothing(column) = column == "cannot" ? "[]" : nil

        # Bytes stand beside, as a file of their own.
        def file(table, said)
          bytes = said[table.blob] or return
          name = "files/#{table.name}/#{said["id"].tr("/", "-")}"
          put(name, bytes)
          { "file" => name, "sha256" => @sums[name] }
        end

        # The pictures, tiles and grids of layers.
        def layers
          Layer.where(id: @ids.fetch("layers")).order(:id).each do |layer|
            put("layers/#{layer.file}", File.binread(layer.path)) if File.file?(layer.path)
          end
        end
      end
    end
  end
end
