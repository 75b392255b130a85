# frozen_string_literal: true

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
        # what: :new, :newer, :same, :ours (changed here alone), :both; id: of the row here; theirs: plain, as every
        # copy writes it; ours: the same of the row here; digest: of theirs.
        Line = Core::Value.define(:table, :gid, :what, :id, :theirs, :ours, :digest)
        NEEDED = %i[new newer].freeze

        attr_reader :notes

        def initialize(reader)
          @reader, @known, @notes = reader, Known.new, []
        end

        def properties = @reader.properties

        # [Line] of every row that has an id; among others, without those that follow from other records.
        def lines = @lines ||= exact? ? all : all.reject { |line| line.table.follows?(line.theirs) }

        # {table => {what => number}}, of tables that hold anything.
        def counts
          lines.group_by { |line| line.table.name }.transform_values { |some| some.map(&:what).tally }
        end

        # Those that changed in both.
        def conflicts = lines.select { |line| line.what == :both }

        # {column => [ours, theirs]} of a conflict.
        def apart(line)
          (line.ours.keys | line.theirs.keys).reject { |column| line.table.worked_out.include?(column) }
                                             .to_h { |column| [column, [line.ours[column], line.theirs[column]]] }
                                             .reject { |column, (one, other)| column == "id" || one == other }
        end

        # Is nothing of it here, and can every row keep its id? Then it is opened as it was.
        def exact?
          all.all? { |line| line.what == :new } && numbering.all? { |(_, gid), id| Bundle.number(gid) == id }
        end

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

        def all = @all ||= TABLES.values.select(&:numbered?).flat_map { |table| lines_of(table) }

        def wanted?(line, choices)
          NEEDED.include?(line.what) || (line.what == :both && choices[line.gid] == "theirs")
        end

        def lines_of(table)
          rows = @reader.rows(table.name)
          here = here(table, rows.filter_map { |told| @known.id(table.name, told["id"]) })
          rows.map { |told| line(table, told, here) }
        end

        # {id => row} of those that are here.
        def here(table, ids)
          Bundle.raw("SELECT * FROM #{table.name} WHERE id IN (SELECT value FROM json_each(?))", JSON.generate(ids))
                .to_h { |row| [row["id"], row] }
        end

        def line(table, told, here)
          gid, theirs = told["id"], told["row"].merge("id" => told["id"])
          digest = Bundle.digest(table, theirs)
          id = @known.id(table.name, gid)
          row = id && here[id]
          return Line.new(table:, gid:, what: :new, theirs:, digest:) unless row || (id = alike(table, theirs))

          ours = row && @known.plain(table, blobless(table, row))
          Line.new(table:, gid:, what: row ? compare(table, told, digest, ours, id) : :same, id:, theirs:, ours:,
                   digest:)
        end

        # A row's bytes as a bundle names them, for they are compared by their sum.
        def blobless(table, row)
          bytes = table.blob && row[table.blob] or return row
          name = "files/#{table.name}/#{@known.gid(table.name, row["id"]).tr("/", "-")}"
          row.merge(table.blob => { "file" => name, "sha256" => Digest::SHA256.hexdigest(bytes) })
        end

        def compare(table, told, digest, ours, id)
          mine = Bundle.digest(table, ours)
          return :same if mine == digest

          base = Bundle.ours?(told["id"]) ? told["was"] || digest : @known.digest(table.name, id)
          if mine == base then :newer
          else digest == base ? :ours : :both
          end
        end

        # The id of a thing of the group that is called the same here.
        def alike(table, theirs)
          table.alike && Sequel::Model.db[table.name.to_sym].where(table.alike.to_sym => theirs[table.alike]).min(:id)
        end

        # {[table, gid] => id here} of what comes in: its own number where that is free, else the next.
        def numbering
          @numbering ||= all.select { |line| line.what == :new }.group_by(&:table).flat_map do |table, some|
            used = Sequel::Model.db[table.name.to_sym].select_map(:id).to_set
            last = [used.max.to_i, *some.map { |line| Bundle.number(line.gid) }].max
            some.map do |line|
              own = Bundle.number(line.gid)
              id = used.add?(own) ? own : (last += 1)
              [[table.name, line.gid], id]
            end
          end.to_h
        end

        # The id here of a gid that something points to; nil where it did not come.
        def id_of(name, gid)
          return if gid.nil?

          numbering[[name, gid]] || same_things[[name, gid]] || @known.id(name, gid)
        end

        # What was found to be the same thing here.
        def same_things
          @same_things ||= all.select { |line| line.id && line.ours.nil? }
                              .to_h { |line| [[line.table.name, line.gid], line.id] }
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

        def insert(table, row) = Bulk.insert(table.name.to_sym, [row.transform_keys(&:to_sym)])

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
              Sequel::Model.db[table.name.to_sym].insert_conflict.insert(row.transform_keys(&:to_sym))
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
