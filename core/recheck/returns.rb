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
        SEVERAL = %w[seed_bank cohorts every].freeze # ways of coming back more than once
        MOST = 8 # visits of a season
        SOON = 7 # days: the same where one comes back through a whole summer
        NEAR = 20 # days: a yearly look that close to another visit is the same visit
        MAX_YEARS = 10

        # neighbour: does another patch of its kind seed into it?
        def initialize(plant:, removal:, done_on:, site:, neighbour: false, knowledge: Knowledge.shipped)
          @plant, @removal, @done_on, @site, @neighbour = plant, removal, done_on, site, neighbour
          @rows = knowledge.returns
        end

        # [Visit], soonest first.
        def visits
          fitting = @rows.select { |_, row| fits?(row) }
          several, once = fitting.partition { |_, row| row["when"].keys.intersect?(SEVERAL) }
          found = once.filter_map { |key, row| visit(key, row) }
          several.sort_by { |_, row| SEVERAL.index { |way| row["when"][way] } }
                 .each { |key, row| found += apart(again(key, row), found, row["when"]) }
          found.sort_by(&:due_on).freeze
        end

        private

        def fits?(row)
          return false if row["when"]["neighbour"] && !@neighbour
          return row["methods"].include?(@removal.key) if row["methods"]

          traits, tags = row.values_at("traits", "tags").map { |keys| keys&.map(&:to_sym) }
          (traits.nil? || @plant.is?(*traits)) && (tags ? @removal.is?(*tags) : @removal.removes?)
        end

        def visit(key, row)
          told = { key:, kind: row["kind"], text: row["text"], source: row["source"] }
          return Visit.new(**told, due_on: @done_on + row["when"]["days"]) if row["when"]["days"]

          event = Season::Event.read(row["when"])
          outcome = event.resolve(@site, @done_on)
          outcome.date && Visit.new(**told, event:, due_on: outcome.date + event.after,
                                            happened_on: outcome.happened? ? outcome.date : nil)
        end

        # Those that are not the same visit as one that is there: one that is near, and where seed has to be forestalled
        # no later.
        def apart(visits, others, asked)
          before = asked["every"] ? SOON : NEAR
          after = asked["cohorts"] ? 1 : before
          visits.reject do |visit|
            others.any? { |other| (other.due_on - visit.due_on).to_i.between?(1 - before, after - 1) }
          end
        end

        # Visits of a row that comes more than once.
        def again(key, row)
          return years(key, row) if row["when"]["seed_bank"]

          days = row["when"]["every"] ? summer(row["when"]["every"]) : worked_out(row)
          days.first(MOST).each_with_index.map do |(due, text), n|
            Visit.new(key: n.zero? ? key : "#{key}_#{n + 1}", kind: row["kind"], due_on: due, source: row["source"],
                      text: text || row["text"])
          end
        end

        # [[day, words]] of the fewest visits before anything seeds, with what the handbook says beside.
        def worked_out(row)
          VisitSchedule.new(Cohorts.new(@plant, @site, @done_on).all).visits.map do |visit|
            days = (visit.on - @done_on).to_i
            beside = row["handbook"] ? "; #{days} days, the handbook says #{row["handbook"]}" : ""
            [visit.on, "#{row["text"]} #{visit.cohort.what}#{beside}"]
          end
        end

        # [[day, nil]] so many days apart, while the plant is in leaf.
        def summer(days)
          leaf = @site.calendar(@plant).phenophases(@site.year(@done_on)).select { |span| span.phase == :leaf }
          last = leaf.map(&:to).max || @done_on
          first = @done_on + days
          [[first, nil], *(1...MOST).map { |n| [first + (n * days), nil] }.take_while { |due, _| due <= last }]
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
