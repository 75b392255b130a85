# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # When to come back after a treatment: every entry of knowledge/returns.yml that fits plant and method,
      # turned into a date at the site.
      class Returns
        # event: what it waits for (Season::Event), where it waits for weather or a mark of the year; happened_on: its
        # day, once it has come.
        Visit = Value.define(:key, :due_on, :kind, :text, :source, :event, :happened_on)
        NEAR = 20 # days: a yearly look that close to another visit is the same visit
        MAX_YEARS = 10

        def initialize(plant:, removal:, done_on:, site:, knowledge: Knowledge.shipped)
          @plant, @removal, @done_on, @site = plant, removal, done_on, site
          @rows = knowledge.returns
        end

        # [Visit], soonest first.
        def visits
          single, yearly = @rows.select { |_, row| fits?(row) }.partition { |_, row| !row.dig("when", "seed_bank") }
          found = single.filter_map { |key, row| visit(key, row) }
          found += yearly.flat_map { |key, row| years(key, row) }
                         .reject { |visit| found.any? { |other| (other.due_on - visit.due_on).abs < NEAR } }
          found.sort_by(&:due_on).freeze
        end

        private

        def fits?(row)
          traits = row["traits"]&.map(&:to_sym)
          tags = row["tags"]&.map(&:to_sym)
          return row["methods"].include?(@removal.key) if row["methods"]

          (traits.nil? || @plant.is?(*traits)) && (tags.nil? || @removal.is?(*tags)) && (@removal.removes? || tags)
        end

        def visit(key, row)
          told = { key:, kind: row["kind"], text: row["text"], source: row["source"] }
          return Visit.new(**told, due_on: @done_on + row["when"]["days"]) if row["when"]["days"]

          event = Season::Event.read(row["when"])
          outcome = event.resolve(@site, @done_on)
          outcome.date && Visit.new(**told, event:, due_on: outcome.date + event.after,
                                            happened_on: outcome.happened? ? outcome.date : nil)
        end

        def years(key, row)
          bank = @plant.seed_bank_years or return []

          (1..[bank["likely"], MAX_YEARS].min).filter_map do |n|
            due = @site.year(@done_on >> (12 * n)).moment(:leaf_out)&.date or next
            Visit.new(key:, due_on: due + 14, kind: row["kind"], source: row["source"],
                      text: "#{row["text"]} (year #{n} of #{bank["likely"]})")
          end
        end
      end
    end
  end
end
