# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # When to come back after a treatment: every entry of knowledge/returns.yml that fits plant and method, turned
      # into dates at the site. The earliest word counts: before what was missed would drop seed, when what was hit
      # shows leaf again, before seedlings would seed, the method's own time; then every year in which seed or pieces
      # may live.
      class Returns
        # event: what it waits for (Season::Event), where it waits for weather or a mark of the year; happened_on: its
        # day, once it has come.
        Visit = Value.define(:key, :due_on, :kind, :text, :source, :event, :happened_on)
        ONE = 7 # days within which two visits of one work are one
        NEAR = 20 # days before a yearly look, in which another visit is the same look
        MOST, OFTEN = 8, 14 # visits before seed, and of a row that comes every so many days
        MAX_YEARS = 10 # for which yearly looks are written down; past them follows what may still live (FollowUp)
        LEAST_YEARS = 2 # of looks at what has neither seed nor pieces on file
        AHEAD = 500 # days that are looked over
        SAME_SEASON = 30 # days of rest within one season of growth
        STRONGER = %w[treat report check].freeze # which kind two visits become that are one

        # neighbour: does another patch of its kind seed into it?
        def initialize(plant:, removal:, done_on:, site:, neighbour: false, knowledge: Knowledge.shipped)
          @plant, @removal, @done_on, @site, @neighbour = plant, removal, done_on, site, neighbour
          @rows = knowledge.returns
        end

        # [Visit], soonest first.
        def visits
          yearly, others = @rows.select { |_, row| fits?(row) }.partition { |_, row| row["when"]["yearly"] }
          found = as_one(others.flat_map { |key, row| of(key, row) })
          found += yearly.flat_map { |key, row| looks(key, row) }.reject { |look| told?(look, found) }
          named_apart(found.sort_by(&:due_on)).freeze
        end

        # The Visit of a patch in which something may live and for which nothing else is asked: its plant's next yearly
        # look after a day; a year on where the plant is not known.
        def self.rest(plant, site, after)
          due = if plant
                  [0, 12, 24].map { |months| yearly(plant, site, site.year(after >> months)) }
                             .find { |day| day > after + NEAR }
                end
          Visit.new(key: "rest", kind: "check", due_on: due || (after >> 12), source: "common_practice",
                    text: "Every year while seed or pieces live in the soil: new seedlings and shoots")
        end

        # The look of a plant's year: before its green seed, once it has been in leaf for three weeks where that is
        # sooner than its seed; of a plant without seed, at full leaf.
        def self.yearly(plant, site, year)
          calendar = site.calendar(plant)
          green, ripe = %i[green_seed ripe_seed].map { |phase| begun(calendar, phase, year) }
          first = [green, ripe].compact.map(&:early).min
          return year.moment(:full_leaf)&.date || (year.start + 150) unless first

          shown = begun(calendar, :leaf, year)&.from
          due = [first - 7, (shown + 21 if shown && shown < first)].compact.max
          [due, (ripe&.early || (due + 4)) - 4].min
        end

        def self.begun(calendar, phase, year)
          calendar.spells(phase, year.start, year.finish).find { |span| year.cover?(span.from) }
        end
        private_class_method :begun

        private

        def fits?(row)
          return false if row["when"]["neighbour"] && !@neighbour

          here?(row) && of_its_kind?(row) && asked_by_method?(row)
        end

        # By name, by tags, or by what it does.
        def asked_by_method?(row)
          return row["methods"].include?(@removal.key) if row["methods"]

          tags, without = row.values_at("tags", "without_tags").map { |keys| (keys || []).map(&:to_sym) }
          return false if @removal.is?(*without)

          tags.any? ? @removal.is?(*tags) : row["always"] || @removal.removes?
        end

        def here?(row) = row["climates"].nil? || row["climates"].include?(@site.climate.key)

        # By traits, form, family or name.
        def of_its_kind?(row)
          traits, without = row.values_at("traits", "without").map { |keys| keys&.map(&:to_sym) }
          (traits.nil? || @plant.is?(*traits)) && (without.nil? || !@plant.is?(*without)) &&
            { "forms" => @plant.form.to_s, "families" => @plant.family, "plants" => @plant.key }
              .all? { |key, own| row[key].nil? || row[key].include?(own) }
        end

        # Visits of a row.
        def of(key, row)
          asked = row["when"]
          told = { key:, kind: row["kind"], source: row["source"] }
          return worked_out(row).map { |due_on, text| Visit.new(**told, due_on:, text:) } if asked["cohorts"]
          return event(row, told) if asked.keys.intersect?(%w[anchor rain_mm frosts browned])

          days = if asked["every"] then often(asked)
                 elsif asked["leaf"] then [in_leaf(**asked.slice("leaf", "now").transform_keys(&:to_sym))]
                 else [@done_on + asked["days"]]
                 end
          days.compact.map { |due_on| Visit.new(**told, due_on:, text: row["text"]) }
        end

        def event(row, told)
          event = Season::Event.read(row["when"])
          outcome = event.resolve(@site, @done_on)
          return [] unless outcome.date

          [Visit.new(**told, text: row["text"], event:, due_on: outcome.date + event.after,
                             happened_on: outcome.happened? ? outcome.date : nil)]
        end

        # [[day, words]] of the fewest visits before anything seeds, with what the handbook says beside.
        def worked_out(row)
          cohorts = Cohorts.new(@plant, @site, @done_on)
          VisitSchedule.new(cohorts.all).visits.first(MOST).each_with_index.map do |visit, n|
            days = (visit.on - @done_on).to_i
            told = "#{row["text"]} #{visit.cohort.what}"
            told += "; #{days} days, the handbook says #{row["handbook"]}" if n.zero? && days > ONE && row["handbook"]
            [visit.on, told]
          end
        end

        # The day after so many on which it grows; now: only in the season of the work, nil in another.
        def in_leaf(leaf:, now: false)
          due = grown.first(leaf).last
          due unless now && due && (due - @done_on).to_i > leaf + SAME_SEASON
        end

        # Days so far apart on which it grows, for so long or to the end of the season; after a winter anew.
        def often(asked)
          every, first = asked["every"], asked["first"] || asked["every"]
          last = asked["for"] ? @done_on + asked["for"] : season_end
          day, found = @done_on + first, []
          while day <= last && found.size < (asked["most"] || OFTEN)
            if grown?(day) then found << day
            else day = (grown.find { |one| one > day } || last) + first - every
            end
            day += every
          end
          found
        end

        # The last day of this season's growth, or of the next where it is over.
        def season_end
          grown.each_cons(2).find { |a, b| b - a > 30 }&.first || grown.last || @done_on
        end

        # Days ahead on which the plant is in leaf and a usual day is warm enough to grow.
        def grown
          @grown ||= begin
            first, last = @done_on + 1, @done_on + AHEAD
            leaf = @site.calendar(@plant).spells(:leaf, first, last)
            leaf.flat_map do |span|
              ([span.from, first].max..[span.to, last].min).select do |day|
                @site.grows?(day)
              end
            end.uniq
          end
        end

        def grown?(day) = (@grows ||= grown.to_set).include?(day)

        # Of each year in which seed or pieces may live, whichever is longer.
        def looks(key, row)
          lives = [@plant.seed_bank_years, @plant.fragment_years].compact.map { |years| years["likely"].ceil }.max
          years = (lives || LEAST_YEARS).clamp(1, MAX_YEARS)
          (0..years).filter_map do |n|
            due = Returns.yearly(@plant, @site, @site.year(@done_on >> (12 * n)))
            next if due <= @done_on + (n.positive? ? NEAR : 60)

            Visit.new(key:, due_on: due, kind: row["kind"], source: row["source"],
                      text: "#{row["text"]} (#{years} #{years == 1 ? "year" : "years"})")
          end
        end

        # Is another visit so near that it is the same look, and not so late that it would miss what this one is for?
        def told?(look, visits)
          visits.any? { |visit| (visit.due_on - look.due_on).to_i.between?(-NEAR, ONE) }
        end

        # Visits within a week as one: on the first of the days; one that waits for weather gives way to one that does
        # not.
        def as_one(visits)
          visits.sort_by { |visit| [visit.due_on, visit.event ? 1 : 0] }.each_with_object([]) do |visit, all|
            last = all.last
            if last && (visit.due_on - last.due_on).to_i <= ONE then all[-1] = joined(last, visit)
            else all << visit
            end
          end
        end

        def joined(first, second)
          lead = first.event && !second.event ? second : first
          kind = STRONGER.find { |one| [first.kind, second.kind].include?(one) }
          texts = [first.text, second.text].uniq
          lead.with(due_on: first.due_on, kind:, text: texts.join(". "))
        end

        # A key once a calendar year.
        def named_apart(visits)
          seen = Hash.new(0)
          visits.map do |visit|
            n = seen[[visit.key, visit.due_on.year]] += 1
            n == 1 ? visit : visit.with(key: "#{visit.key}_#{n}")
          end
        end
      end
    end
  end
end
