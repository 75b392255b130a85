# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What may come up at a site after work on a day, and when it would be in seed: plants that were missed or stand
      # again, by the plant's own phases on this ground; of an annual also its seedlings of each day on which it is in
      # leaf (after rain, where rain brings them), by the warmth that they take.
      class Cohorts
        SHOWS = 7 # days from coming up to being seen (memory)
        SAFE = 3 # days before the first seed (memory)
        WET_MM, WET_DAYS = 15, 10 # of rain, in days before, that bring seedlings where rain does (memory)
        AHEAD = 400 # days
        LEAST = 10 # days after work, before which missed plants are not looked for again (memory)
        GREEN = 42 # days after work on green seed, at most, to look again (memory)
        SEEDING = 21 # days after work on a plant that is in seed, to look again (memory)
        WHILE_SEEDING = 30 # days of seed still to come from which that is worth a visit (memory)
        BY_DAY_LENGTH = %w[midsummer midwinter first_frost].freeze # marks of plants that wait for the days to shorten

        # plant, site: as Returns has them; since: the day of the work.
        def initialize(plant, site, since, warmth: Knowledge.shipped.stages["to_seed"])
          @plant, @site, @since = plant, site, since
          @needed, @base = (plant.warmth_to_seed || warmth.fetch(winter? ? "winter" : "summer"))
                           .values_at("degree_days", "base")
        end

        # [VisitSchedule::Cohort] of the time ahead, none for a plant that bears no seed.
        def all
          return [] unless @plant.phase?(:ripe_seed)

          [*missed, *(@plant.is?(:annual) ? half_grown + seedlings : [])]
        end

        # The next seed: [first day on which any may be ripe, its middle], nil for none within the time.
        def ripe
          @ripe ||= begin
            span = spells(:ripe_seed).find { |one| one.from > @since }
            span ? [[span.early, @since + 2].max, span.from] : []
          end
          @ripe.empty? ? nil : @ripe
        end

        private

        def cohort(from, to, what) = VisitSchedule::Cohort.new(from: [from, to].min, to:, what:)
        def calendar = @calendar ||= @site.calendar(@plant)
        def spells(phase) = (@spells ||= {})[phase] ||= calendar.spells(phase, @since, @since + AHEAD)

        # Of any plant, whatever was missed or stands again: before it is in green seed, or where it is, before any is
        # ripe; while it is in seed, soon.
        def missed
          what = @plant.is?(:annual) ? "plants that were missed" : "missed plants and regrowth"
          found = []
          found << cohort(@since + LEAST, @since + SEEDING, what) if goes_on_seeding?
          found << cohort(@since + LEAST, before_seed, what) if ripe
          found
        end

        # Is it in seed, in leaf and in growth now, and for weeks to come?
        def goes_on_seeding?
          soon = @since + SEEDING
          last = @since + WHILE_SEEDING
          spells(:ripe_seed).any? { |one| one.from <= @since && one.to >= last } && in_leaf?(soon) && @site.grows?(soon)
        end

        def before_seed
          early, middle = ripe
          green = spells(:green_seed).select { |one| one.from <= middle }.map(&:early).max
          due = if green && green - SAFE > @since + LEAST then [green, early].min - SAFE
                else [early - SAFE, @since + GREEN].min
                end
          # Seed that is nearly ripe leaves half of the time for what was missed to show.
          soonest = @since + ((middle - @since).to_i / 2).clamp(1, LEAST)
          due.clamp(soonest, [middle - 1, soonest].max)
        end

        # An annual's plants that the work missed are half grown.
        def half_grown
          due = in_leaf?(@since) && warm_by(@since, @needed / 2.0)
          due ? [cohort(@since + 1, [due, @since + LEAST].max, "plants that were missed")] : []
        end

        def seedlings
          ((@since - SHOWS + 1)..last_day).filter_map do |day|
            next unless in_leaf?(day) && (!@site.climate.rain_driven? || wet?(day))

            seed = warm_by(day, @needed) or next
            seed = [seed, season_of(day)].compact.max if by_day_length?
            shows = [day + SHOWS, @since + 1].max
            due = seed - SAFE
            due >= shows ? cohort(shows, due, "seedlings that came up #{Dates.about(day)}") : nil
          end
        end

        # The first day of seed of the season that a day lies before or in; nil for none.
        def season_of(day) = spells(:ripe_seed).find { |span| span.to >= day }&.early

        # Does its seed wait for the days to shorten, however early it came up?
        def by_day_length?
          @plant.phases.any? do |row|
            row["phase"] == "ripe_seed" && row["climate"].nil? && BY_DAY_LENGTH.include?(row["from"]["anchor"])
          end
        end

        # Is it green through the winter?
        def winter?
          middle = @site.year(@since).date(:midwinter)
          calendar.phases_on(middle).include?(:leaf)
        end

        def in_leaf?(day) = spells(:leaf).any? { |span| day.between?(span.from, span.to) }
        def last_day = @last_day ||= [spells(:leaf).map(&:to).min || @since, @since + AHEAD].min
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
          @warmth ||= (0..(AHEAD + SHOWS)).each_with_object([0.0]) do |n, sums|
            day = @site.day(first_day + n)
            sums << (sums.last + Season::DegreeDays.sine(day.tmin, day.tmax, @base))
          end
        end
      end
    end
  end
end
