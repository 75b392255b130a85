# frozen_string_literal: true

module Thistle
  module Web
    module Records
      # A bundle that somebody brought: what would come of it, table by table, and what changed in both copies.
      class BundleBoard
        WHAT = { new: "new", newer: "newer there", same: "the same", ours: "newer here",
                 both: "changed in both" }.freeze
        # What tables are called.
        NAMES = { "tasks" => "visits", "arrivals" => "imports", "arrival_rows" => "import rows",
                  "kit_items" => "tools", "local_rules" => "rules of the ground",
                  "products_in_use" => "products in use",
                  "take_counts" => "survival counts", "reports" => "sheets for specialists" }.freeze
        SHOWN = 200 # conflicts on one page

        attr_reader :arrival

        def initialize(arrival)
          @arrival = arrival
        end

        def merge = @merge ||= Store::Bundle::Merge.new(Store::Bundle::Reader.new(arrival.path))
        def properties = merge.properties
        def conflicts = @conflicts ||= merge.conflicts.first(SHOWN)

        # [[words, {what => number}]] of tables of which anything comes.
        def rows
          merge.counts.reject { |_, counts| (counts.keys - [:same]).empty? }
               .map { |name, counts| [called(name), counts] }
        end

        def nothing_new? = merge.counts.values.flat_map(&:keys).uniq.difference(%i[same ours]).empty?

        # "Patch Q-02", "Treatment of 2 May 2026": what a conflict is about.
        def title(line)
          row = line.theirs
          name = row.values_at("code", "name", "question").compact.first
          day = row.values_at("done_on", "checked_on", "seen_on", "due_on", "held_on", "searched_on").compact.first
          about = name || (day && "of #{Words.full_day(Date.iso8601(day))}")
          [one(line.table.name).capitalize, about].compact.join(" ")
        end

        # "patch", of "patches".
        def one(name) = called(name).sub(/(?<=ch)es\z|s\z/, "")

        def called(name) = NAMES.fetch(name) { name.tr("_", " ") }

        # [[column, ours, theirs]] that differ.
        def apart(line) = merge.apart(line).map { |column, (one, other)| [column.tr("_", " "), said(one), said(other)] }

        private

        def said(value) = value.nil? || value == "" ? "nothing" : value.to_s[0, 200]
      end
    end
  end
end
