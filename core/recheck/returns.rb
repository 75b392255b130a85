# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # When to come back after a treatment: every entry of knowledge/returns.yml that fits plant and method,
      # turned into a date at the site.
      class Returns
        Visit = Value.define(:key, :due_on, :kind, :text, :source, :rain_mm)
        NEAR = 20 # days: a yearly look that close to another visit is the same visit
        MAX_YEARS = 10

        # Three days after the next such rain: the one that fell, or is forecast, or is usual.
        def self.after_rain(site, done_on, mm)
          from = done_on + 1
          rain = site.next_rain(from, mm)
          rain ? rain + 3 : [from, site.horizon].max + site.usual_wait([from, site.today].max, mm)
        end

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
          (traits.nil? || @plant.is?(*traits)) && (tags.nil? || @removal.is?(*tags)) && (@removal.removes? || tags)
        end

        def visit(key, row)
          due = due(row["when"])
          due && Visit.new(key:, due_on: due, kind: row["kind"], text: row["text"], source: row["source"],
                           rain_mm: row.dig("when", "rain_mm"))
        end

        def due(moment)
          return @done_on + moment["days"] if moment["days"]
          return after_rain(moment["rain_mm"]) if moment["rain_mm"]

          next_anchor(moment["anchor"].to_sym)
        end

        def after_rain(mm) = self.class.after_rain(@site, @done_on, mm)

        # The anchor's next coming, at least two weeks off.
        def next_anchor(key)
          [@done_on, @done_on >> 12].filter_map { |date| @site.year(date).date(key) }.find { |date| date > @done_on + 14 }
        end

        def years(key, row)
          bank = @plant.seed_bank_years or return []

          (1..[bank["likely"], MAX_YEARS].min).filter_map do |n|
            due = @site.year(@done_on >> (12 * n)).date(:leaf_out) or next
            Visit.new(key:, due_on: due + 14, kind: row["kind"], source: row["source"],
                      text: "#{row["text"]} (year #{n} of #{bank["likely"]})")
          end
        end
      end
    end
  end
end
