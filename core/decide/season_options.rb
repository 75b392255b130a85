# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Everything that could be done in a season: each ranked patch by the few methods that suit it, in each week in
      # which one is right, as a Plan takes it. What a patch gains is its score times the share likely killed, less once
      # this year's seed has fallen, and a little less for each week of waiting.
      class SeasonOptions
        METHODS = 3 # moves considered for one patch
        DAYS_OPEN = 3 # of a week for which a window must be open
        MOST_PARTS = 12 # visits that one patch may take
        LATE = 0.6 # of the gain is left once this year's seed has fallen (memory)
        WAITING = 0.002 # of the gain that each week of waiting costs (memory)
        FREED = 0.7 # of the gain that freeing the trees of a climber is worth (memory)
        NEAR_M, DENSE = 50.0, 50 # beyond and above which rules tell no difference

        # rows: Priority's; weeks: Mondays; hours: of each week; licensed: the days on which someone may apply
        # herbicide, nil for all; kept: answers of patches alike, of the same day.
        def initialize(rows, site, weeks:, hours:, licensed: nil, kept: Kept.new(500))
          @rows, @site, @weeks, @hours, @licensed, @kept = rows, site, weeks, hours, licensed, kept
        end

        # [Plan::Option]
        def all = @all ||= @rows.flat_map { |row| options(row) }

        private

        def options(row)
          facts = row.candidate.facts
          moves(facts).flat_map do |removal, windows|
            effort = Effort.new(removal, facts)
            parts = effort.hours && [(effort.hours / [@hours.max, 0.1].max).ceil, 1].max
            next [] if parts.nil? || parts > MOST_PARTS

            open_weeks(removal, windows).map { |week| option(row, removal, effort, parts, week) }
          end
        end

        def option(row, removal, effort, parts, week)
          share = removal.is?(:freeing) ? FREED : row.candidate.facts.kill(removal)["likely"] / 100.0
          gain = 100 * row.score * share * timing(row.candidate, week)
          Plan::Option.new(patch: row.id, method: removal.key, week:, parts:, hours: effort.hours / parts,
                           litres: (effort.litres || 0) / parts, cost: effort.cost / parts, gain: gain / parts)
        end

        # The few methods that are right at some time, best first: [[removal, [Window]]]. Patches alike share the
        # answer.
        def moves(facts)
          like = alike(facts)
          @kept.fetch([:moves, @site, like, season_years]) do
            bench = Bench.new(like, @site)
            useful = bench.removals.select { |removal| removal.removes? || removal.is?(:freeing) }
            open = useful.to_h { |removal| [removal, windows(removal, like)] }.reject { |_, windows| windows.empty? }
            open.sort_by { |removal, _| order(removal, bench) }.first(METHODS)
          end
        end

        # Starts of the season-years that the weeks reach into.
        def season_years = @season_years ||= @weeks.map { |monday| @site.year(monday).start }.uniq

        def windows(removal, like)
          season_years.flat_map { |start| Windows.new(like.with(date: [start, like.date].max), @site).of(removal) }
        end

        def alike(facts)
          facts.with(plants: nil, stems: nil, seedlings: nil, sizes: nil, area_m2: 100.0,
                     water_m: facts.water_m && [facts.water_m, NEAR_M].min,
                     cover: facts.cover && (facts.cover > DENSE ? 85.0 : 15.0))
        end

        def order(removal, bench)
          [*Effort.new(removal, bench.facts).order, bench.named.include?(removal) ? 0 : 1]
        end

        # Weeks, by number, with a window open and, for herbicide, someone there who may.
        def open_weeks(removal, windows)
          @weeks.each_index.select do |n|
            monday = @weeks[n]
            next if removal.herbicide? && @licensed && (@licensed.begin > monday + 6 || @licensed.end < monday)

            windows.any? do |window|
              ([window.to, monday + 6].min - [window.from, monday, @site.today].max).to_i + 1 >= DAYS_OPEN
            end
          end
        end

        def timing(candidate, week)
          fallen = candidate.seed_on && @weeks[week] + 6 > candidate.seed_on
          (fallen ? LATE : 1.0) * (1 - (WAITING * week))
        end
      end
    end
  end
end
