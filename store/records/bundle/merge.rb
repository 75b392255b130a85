# frozen_string_literal: true

require "forwardable"

module Thistle
  module Store
    module Bundle
      # Process: brings a bundle into this copy. What is not here yet comes in; what changed there alone is taken over;
      # what changed here alone stays; what changed in both is shown to a person, and stays unless they take the other.
      #
      #   merge = Bundle::Merge.new(Bundle::Reader.new(path))
      #   merge.counts                     # => {"patches" => {new: 12, newer: 1, both: 1, …}}
      #   merge.take("…gid" => "theirs")   # those that changed in both
      class Merge
        extend Forwardable

        NEEDED = %i[new newer].freeze

        attr_reader :notes

        def_delegators :@comparison, :lines, :counts, :conflicts, :apart, :exact?
        def_delegators :@comparison, :numbering, :id_of
        private :numbering, :id_of

        def initialize(reader)
          @reader, @known, @notes = reader, Known.new, []
          @comparison = Comparison.new(reader, @known)
        end

        def properties = @reader.properties

        # Takes it. choices: {gid => "theirs"} of those that changed in both. Answers what came of each: {what =>
        # number}.
        def take(choices = {})
          Sequel::Model.db.transaction do
            exact = exact?
            Bundle.raw("PRAGMA defer_foreign_keys = ON")
            taken = lines.select { |line| wanted?(line, choices) }
            taken.each { |line| write(line, exact) }
            unnumbered(exact)
            remember(taken)
            layers
            settle(taken) unless exact
          end
          lines.map(&:what).tally
        end

        private

        def wanted?(line, choices)
          NEEDED.include?(line.what) || (line.what == :both && choices[line.gid] == "theirs")
        end

        # A plain row as this copy holds it.
        def own(table, theirs, exact)
          row = theirs.except("id")
          table.refs_of(row).each { |column, other| row[column] = id_of(other, row[column]) if row.key?(column) }
          table.lists.each { |column, other| row[column] = @known.mapped(row[column]) { |gid| id_of(other, gid) } }
          table.keyed.each { |column, other| row[column] = @known.rekeyed(row[column]) { |gid| id_of(other, gid) } }
          table.kept_ids.each { |column| row[column] = nil } unless exact
          row[table.blob] = blob(row[table.blob]) if table.blob
          row
        end

        def blob(told) = told && SQLite3::Blob.new(@reader.file(told["file"]) || "")

        def write(line, exact)
          table, row = line.table, own(line.table, line.theirs, exact)
          return change(table, line.id, row) unless line.what == :new

          make_room(table, row)
          insert(table, row.merge("id" => numbering.fetch([table.name, line.gid])))
        end

        # What may stand here once only, and stands here already.
        def make_room(table, row)
          case table.name
          when "patches" then row["code"] = free(row["code"]) do |code|
            taken?("patches", row, "property_id", "code" => code)
          end
          when "properties" then row["prefix"] = free(row["prefix"], "") do |one|
            taken?("properties", row, "prefix" => one)
          end
          when "land_plans"
            row["version"] += 1 while taken?("land_plans", row, "property_id", "version" => row["version"])
          else table.unique && give_way(table, row)
          end
        end

        def taken?(name, row, *same, **values)
          where = row.slice(*same).merge(values).transform_keys(&:to_sym)
          !Sequel::Model.db[name.to_sym].where(where).empty?
        end

        # The text, or the next like it that is free.
        def free(text, mark = "-")
          found = (1..).lazy.map { |n| n == 1 ? text : "#{text}#{mark}#{n}" }.find { |one| !yield(one) }
          @notes << "#{text} is called #{found} here: another is called so already." if found != text
          found
        end

        # What stands here goes, where only one may be.
        def give_way(table, row)
          Sequel::Model.db[table.name.to_sym].where(row.slice(*table.unique).transform_keys(&:to_sym)).delete
        end

        def insert(table, row) = Bulk.insert(table.name.to_sym, [grouped(table, row)])

        # What comes in belongs to the group at hand.
        def grouped(table, row)
          row = row.transform_keys(&:to_sym)
          table.grouped ? row.merge(group_id: Acting.group_id || Group::FIRST) : row
        end

        # Columns that follow from others, or that were left out of the bundle, are left as they are here.
        def change(table, id, row)
          left_out = @reader.manifest["private"] ? [] : table.private
          columns = row.except(*table.worked_out, *table.kept_ids, *left_out).transform_keys(&:to_sym)
          Sequel::Model.db[table.name.to_sym].where(id:).update(columns)
        end

        # Rows without ids: those that are not here come in.
        def unnumbered(exact)
          TABLES.values.reject(&:numbered?).each do |table|
            next if table.follows && !exact

            rows = @reader.rows(table.name).map { |row| own(table, row, exact) }
            rows = rows.select { |row| row.values_at(*table.refs.keys).all? }
            rows.each do |row|
              Sequel::Model.db[table.name.to_sym].insert_conflict.insert(grouped(table, row))
            end
          end
        end

        # What both know from now on.
        def remember(taken)
          own = taken.to_h { |line| [[line.table.name, line.gid], true] }
          rows = lines.reject { |line| Bundle.ours?(line.gid) }.filter_map do |line|
            id = line.id || (own[[line.table.name, line.gid]] && numbering[[line.table.name, line.gid]]) or next
            { gid: line.gid, name: line.table.name, local_id: id, digest: line.digest }
          end
          rows.each_slice(500) do |some|
            Sequel::Model.db[:origins].insert_conflict(:replace).multi_insert(some)
          end
        end

        def layers
          FileUtils.mkdir_p(Layer.folder)
          @reader.layers do |name, bytes|
            path = File.join(Layer.folder, name)
            File.binwrite(path, bytes) unless File.exist?(path)
          end
        end

        # What follows from records that came in among others: places, overlaps, states, visits.
        def settle(taken)
          patches = taken.select do |line|
            line.table.name == "patches"
          end.map { |line| line.id || id_of("patches", line.gid) }
          touched = taken.filter_map { |line| id_of("patches", line.theirs["patch_id"]) } | patches
          Patch.where(id: patches).all.group_by(&:property).each do |property, some|
            Surroundings.settle(property, some.map(&:id))
            Overlaps.settle(property, some.map(&:id))
          end
          FollowUps.settle_each(touched)
        end
      end
    end
  end
end
