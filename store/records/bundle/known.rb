# frozen_string_literal: true

module Thistle
  module Store
    module Bundle
      # Which row is which: the gid of a row that is here, and the row of a gid.
      class Known
        def initialize
          @of_rows, @of_gids = {}, {}
          Sequel::Model.db[:origins].select_map(%i[name local_id gid digest]).each do |name, id, gid, digest|
            (@of_rows[name] ||= {})[id] = [gid, digest]
            (@of_gids[name] ||= {})[gid] = id
          end
        end

        # nil for no row.
        def gid(name, id) = id && (@of_rows.dig(name, id)&.first || Bundle.gid(id))

        # The version that this copy and the row's own knew last; nil of rows made here.
        def digest(name, id) = @of_rows.dig(name, id)&.last

        # The id of a gid here; nil where nothing of it came yet.
        def id(name, gid) = Bundle.ours?(gid) ? Bundle.number(gid) : @of_gids.dig(name, gid)

        # A row as every copy would write it: its gid for its id, gids for what it points to.
        def plain(table, row)
          said = row.except(*table.secret)
          table.refs_of(said).each { |column, other| said[column] = gid(other, said[column]) if said.key?(column) }
          table.lists.each { |column, other| said[column] = mapped(said[column]) { |id| gid(other, id) } }
          table.keyed.each { |column, other| said[column] = rekeyed(said[column]) { |id| gid(other, id.to_i) } }
          said["id"] = gid(table.name, said["id"]) if said.key?("id")
          said
        end

        # [1, 2] as JSON with each id turned; nil as it is.
        def mapped(text, &) = text && JSON.generate(JSON.parse(text).filter_map(&))

        # {"1": …} as JSON with each key turned.
        def rekeyed(text)
          text && JSON.generate(JSON.parse(text).to_h { |id, value| [yield(id), value] }.reject { |id, _| id.nil? })
        end
      end
    end
  end
end
