# frozen_string_literal: true

module Thistle
  module Store
    module Bundle
      # Reading: a bundle row by row against this copy: what is new, what changed where, and under which id each row
      # stands or will stand here.
      class Comparison
        # what: :new, :newer, :same, :ours (changed here alone), :both; id: of the row here; theirs: plain, as every
        # copy writes it; ours: the same of the row here; digest: of theirs.
        Line = Core::Value.define(:table, :gid, :what, :id, :theirs, :ours, :digest)

        def initialize(reader, known)
          @reader, @known = reader, known
        end

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

        private

        # What was found to be the same thing here.
        def same_things
          @same_things ||= all.select { |line| line.id && line.ours.nil? }
                              .to_h { |line| [[line.table.name, line.gid], line.id] }
        end

        def all = @all ||= TABLES.values.select(&:numbered?).flat_map { |table| lines_of(table) }

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
          return unless table.alike

          here = Sequel::Model.db[table.name.to_sym].where(table.alike.to_sym => theirs[table.alike])
          (Acting.group_id ? here.where(group_id: Acting.group_id) : here).min(:id)
        end
      end
    end
  end
end
