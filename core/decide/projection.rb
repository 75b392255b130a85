# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Projects a patch's Facts onto any day at a Site: stage by the plant's calendar, soil by the bucket,
      # weather as far as the forecast sees.
      class Projection
        # A day of the hours ahead: what keeps work under some limits off it, whatever the soil.
        Ahead = Value.define(:site, :date) do
          def kept_off(limits) = site.fit_under(limits.on_any_soil).kept_off(date)
        end
        SEED = %i[green_seed ripe_seed].freeze
        REGROWN = 30 # days of growth after which what is held down is cut again (memory)
        YEAR = 366 # days ahead in which the end of a wait is looked for

        attr_reader :facts, :site, :calendar

        def initialize(facts, site)
          @facts, @site = facts, site
          @calendar = facts.calendar(site)
          @situations = {}
        end

        def on(date) = @situations[date] ||= situation(date)

        # The same of a day, or of a day as it usually is, noting whether anyone looks at what changes from day to day.
        def watched(date, usual: false)
          (@watched ||= {})[[date, usual]] ||= (usual ? usually(date) : on(date)).watched
        end

        # A day as it usually is: the calendar's stage, the usual soil, no weather of single days.
        def usually(date) = (@usual ||= {})[date] ||= usual(date)

        # Days after the chosen one on which an answer may change, a year ahead: each that is known, then those on which
        # something turns.
        def turns
          @turns ||= begin
            later = [site.horizon, facts.date].max + 1
            [*((facts.date + 1)..site.horizon), later, *marks(later, facts.date + YEAR)].uniq.sort.freeze
          end
        end

        # The stage on a date: pinned, else by the calendar.
        def stage(date, phases = @calendar.phases_on(date))
          return facts.stage if facts.stage && date == facts.date

          Season::Phenology.furthest(facts.bears_seed? ? phases : phases - SEED)
        end

        # The day on which what was cut on a date has grown back for a month: of leaf, not of winter.
        def grown_back(date)
          from = @calendar.phases_on(date + 1).include?(:leaf) ? date : @calendar.next(:leaf, date)
          from && (from + REGROWN)
        end

        def spans = @calendar.spans(site.year(facts.date))

        private

        def usual(date)
          phases = @calendar.phases_on(date)
          shared.with(date:, stage: stage(date, phases), phases:, soil: site.usual_soil(date), season: site.year(date))
        end

        def situation(date)
          phases = @calendar.phases_on(date)
          shared.with(date:, stage: stage(date, phases), phases:, soil: soil(date), day: weather(date),
                      next_days: next_days(date), hours: hours(date), season: site.year(date))
        end

        def shared
          @shared ||= Situation.new(**facts.to_h.slice(*Facts::CARRIED), climate: site.climate.key)
        end

        # Only weather that was measured or forecast counts.
        def weather(date) = site.known?(date) ? site.day(date) : nil

        def hours(date) = (Ahead.new(site:, date:) if site.known?(date) && date >= site.today)

        def next_days(date)
          [site.day(date), site.day(date + 1)] if site.known?(date) && site.known?(date + 1)
        end

        # A pinned soil is where the bucket starts; from the next day on, rain and sun decide, as far as they are known.
        def soil(date)
          return site.ground(date).kind unless facts.soil && date >= facts.date
          return facts.soil if date == facts.date

          known_to = [site.horizon, facts.date].max
          date <= known_to ? pinned(date) : site.settling(date, pinned_fill(known_to), known_to).kind
        end

        def pinned(date)
          wetted(date)
          @pinned[date].last
        end

        def pinned_fill(date)
          wetted(date)
          @pinned[date].first
        end

        def wetted(date)
          @pinned ||= { facts.date => [Season::Soil::MIDDLE.fetch(facts.soil), facts.soil] }
          @bucket ||= Season::Soil.new(texture: site.texture, latitude: site.latitude, elevation: site.elevation,
                                       fill: Season::Soil::MIDDLE.fetch(facts.soil))
          (@pinned.keys.last.next..date).each do |day|
            kind = @bucket.pass(site.day(day))
            @pinned[day] = [@bucket.fill, kind]
          end
        end

        # Days of some span on which a phase, the soil, a mark that a rule names or a local season turns.
        def marks(from, last)
          years = [site.year(from), site.year(last)].uniq
          phases = years.flat_map { |year| @calendar.phenophases(year) }.flat_map { |span| [span.from, span.to + 1] }
          named = years.flat_map do |year|
            [year.start, *facts.rules.turns.filter_map { |key, days| year.date(key)&.+(days) }]
          end
          freed = facts.freed_on ? [facts.freed_on + Facts::FREED_DAYS] : []
          (phases + named + freed + soil_turns(from, last) + facts.rules.dates(from, last)).grep(from..last)
        end

        # The soil turns alike for all ground here, but where someone pinned it.
        def soil_turns(from, last)
          facts.soil ? (from..last).reject { |date| soil(date) == soil(date - 1) } : site.soil_changes(from, last)
        end
      end
    end
  end
end
