# frozen_string_literal: true

require "sequel"
require "sequel/adapters/sqlite"

module Thistle
  # Which room may write which table stands in ARCHITECTURE.md, in the block that begins with ```writers. Who does is
  # watched while any test runs, and a process of tests that saw another fails.
  module Writers
    SQL = /\A\s*(?:INSERT (?:OR \w+ )?INTO|UPDATE(?: OR \w+)?|DELETE FROM|REPLACE INTO)\s+[`"]?(\w+)/i
    HOUSE = "house" # what every room shares: store/*.rb, web/*.rb
    OURS = %r{\A#{ROOT}/(?:(?:store|web)/(\w+)/[\w/]+\.rb|(?:store|web)/(?!of_group|acting)\w+\.rb)\z}

    @seen = Set.new

    # What Sequel hands to SQLite, watched; an INSERT that returns its row comes as a question does.
    module Watched
      private

      def _execute(type, sql, ...)
        Writers.note(sql[SQL, 1]) if sql.is_a?(String)
        super
      end
    end

    # Writes past Sequel.
    module WatchedBulk
      def insert(table, rows)
        Writers.note(table.to_s) if rows.any?
        super
      end
    end

    class << self
      def watch
        Sequel::SQLite::Database.prepend(Watched)
        Store::Bulk.singleton_class.prepend(WatchedBulk)
      end

      # Notes the nearest room on the way to a table, and the house where no room asked for it; a test's own writing is
      # nobody's.
      def note(table)
        return unless table

        rooms = caller_locations.filter_map { |at| OURS.match(at.path)&.then { |file| file[1] || HOUSE } }
        room = (rooms - [HOUSE, "migrations"]).first || rooms.first
        @seen << [room, table] if room && room != "migrations"
      end

      # ["season writes tasks"] of what is not drawn.
      def strays
        @seen.reject { |room, table| allowed.fetch(room, []).include?(table) }.map { |pair| pair.join(" writes ") }.sort
      end

      # {room => tables}
      def allowed
        block = File.read("#{ROOT}/ARCHITECTURE.md")[/^```writers\n(.*?)^```/m, 1].lines
        block.map { |line| line[/\A[^#]*/].split }.reject(&:empty?).group_by(&:first)
             .transform_values { |lines| lines.flat_map { |line| line.drop(1) } }
      end
    end
  end
end
