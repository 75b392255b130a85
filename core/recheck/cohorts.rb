# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What may come up at a site after work on a day, and when it would be in seed: seedlings of each day on which the
      # plant is in leaf (after rain, where rain brings them), by the warmth that they take; plants that were missed;
      # and of plants that live longer, those that bear this year or the next.
      class Cohorts
        SHOWS = 7 # days from coming up to being seen (memory)
        SAFE = 3 # days before the first seed (memory)
        WET_MM, WET_DAYS = 15, 10 # of rain, in days before, that bring seedlings where rain does (memory)
        AHEAD = 400 # days
        LEAST = 10 # days after work, before which missed plants are not looked for again (memory)

        # plant, site: as Returns has them; since: the day of the work.
        def initialize(plant, site, since, warmth: Knowledge.shipped.stages["to_seed"])
          @plant, @site, @since = plant, site, since
          @needed, @base = warmth.values_at("degree_days", "base")
        end

        # [VisitSchedule::Cohort] of the time until the season is over, none for a plant that bears no seed.
        def all
          return [] unless @plant.is?(:seeds)

          @plant.is?(:annual) ? [*missed, *seedlings] : bearing
        end

        private

        def cohort(from, to, what) = VisitSchedule::Cohort.new(from:, to:, what:)
        def calendar = @calendar ||= @site.calendar(@plant)

        # Plants that the work missed are half grown.
        def missed
          ripe = warm_by(@since, @needed / 2.0)
          return [] unless ripe && in_leaf?(@since)

          [cohort(@since + 1, [ripe, @since + LEAST].max, "plants that were missed")]
        end

        def seedlings
          ((@since - SHOWS + 1)..last_day).filter_map do |day|
            next unless in_leaf?(day) && (!@site.climate.rain_driven? || wet?(day))

            ripe = warm_by(day, @needed) or next
            shows = [day + SHOWS, @since + 1].max
            cohort(shows, ripe - SAFE, "seedlings that came up about #{day.strftime("%-d %b")}")
          end
        end

        # Of a plant that lives longer, whatever was missed or stands again, before its next seed.
        def bearing
          seed = spans(:green_seed).map(&:from).select { |from| from - SAFE > @since + LEAST }.min or return []

          [cohort([seed - 60, @since + LEAST].max, seed - SAFE, "whatever was missed or stands again")]
        end

        def spans(phase)
          [@since, @since >> 12].flat_map { |day| calendar.phenophases(@site.year(day)) }
                                .select { |span| span.phase == phase }
        end

        def leaf = @leaf ||= spans(:leaf)
        def in_leaf?(day) = leaf.any? { |span| day.between?(span.from, span.to) }
        def last_day = @last_day ||= leaf.map(&:to).select { |day| day >= @since }.min || @since
        def wet?(day) = ((day - WET_DAYS)..day).sum { |one| @site.day(one).rain.to_f } >= WET_MM

        # The day on which warmth since a day comes to so many degree days; nil where it does not before the season
        # ends.
        def warm_by(day, degree_days)
          sums = warmth
          at = (day - first_day).to_i
          goal = sums[at] + degree_days
          found = sums.bsearch_index { |sum| sum >= goal } or return
          ripe = first_day + found
          ripe <= last_day ? ripe : nil
        end

        def first_day = @since - SHOWS

        # Degree days since the first day, to each day.
        def warmth
          @warmth ||= (0..AHEAD).each_with_object([0.0]) do |n, sums|
            day = @site.day(first_day + n)
            sums << (sums.last + Season::DegreeDays.sine(day.tmin, day.tmax, @base))
          end
        end
      end
    end
  end
end
