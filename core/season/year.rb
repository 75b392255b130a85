# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # The anchors of one season-year at a site. It starts on 1 January north of the equator and on 1 July
      # south of it, so that spring always comes before autumn. This year's marks are the median over its weather so far
      # going on as each past year did; one that all of them agree on has come, or is in the forecast.
      class Year
        # Marks that the calendar and the sun make, the same in every climate: days from the start.
        FIXED = { season_start: 0, midsummer: 171, midwinter: 354 }.freeze

        attr_reader :start

        # The first day of a season-year: 1 January, or 1 July south of the equator.
        def self.start_of(date, latitude)
          return Date.new(date.year) unless latitude.negative?

          date.month >= 7 ? Date.new(date.year, 7) : Date.new(date.year - 1, 7)
        end

        def initialize(site, start)
          @site = site
          @start = start
          @anchors = {}
        end

        def finish = (start >> 12) - 1
        def cover?(date) = date.between?(start, finish)

        # Anchor by key; nil where the climate has none, or fewer than half of the past years had it.
        def anchor(key)
          @anchors.fetch(key) { @anchors[key] = kinds[key] && find(kinds[key]) }
        end

        def anchors = kinds.keys.filter_map { |key| anchor(key) }.sort_by(&:date)

        # The date of an anchor, or of a fixed mark; nil when the climate has none.
        def date(key) = fixed(key) || anchor(key)&.date

        # The Anchor that a plant's calendar hangs on: its own, or what stands for it in this climate; nil for none.
        def moment(key)
          date = fixed(key)
          date ? edge(key, date) : anchor(key) || stand_in(key)
        end

        # [low, middle, high] dates on which degree days above a base (single sine) since the start reach a sum; nil for
        # never.
        def warm(degree_days, base)
          (@warm ||= {})[[degree_days, base]] ||= begin
            days = members.filter_map { |member| warm_offset(member, degree_days, base) }
            days.size * 2 > members.size ? Percentile.spread(days).map { |n| start + n + @site.shift("spring") } : []
          end
          @warm[[degree_days, base]].then { |found| found.empty? ? nil : found }
        end

        # The marks that this climate has: {key => AnchorKind}.
        def kinds
          @kinds ||= @site.climate.kinds.reject { |_, kind| kind.lake && !@site.lake? }
        end

        private

        def fixed(key) = key == :season_end ? finish : FIXED[key] && (start + FIXED[key])

        def edge(key, date)
          Anchor.new(key:, label: key.to_s.tr("_", " "), date:, early: date, late: date, low: date, high: date,
                     measured: true, working: [])
        end

        def stand_in(key)
          row = @site.climate.stands_for[key.to_s] or return
          other = anchor(row["anchor"].to_sym) or return
          moved = %i[date early late low high].to_h { |name| [name, other[name] + row["days"]] }
          other.with(key:, label: "#{row["days"]} days from #{other.label}", **moved)
        end

        def find(kind)
          past = @site.past.filter_map { |spotter| spotter.find(kind) }
          return if past.size * 2 <= @site.history.size

          early, usual, late = Percentile.spread(past)
          low, middle, high = this_year(kind, usual)
          shift = @site.shift(kind.season)
          seen = @site.seen.anchor(kind.key.to_sym, self)
          dates = { early:, late:, low:, high:, date: middle }.transform_values { |days| start + days + shift }
          dates = dates.merge(date: seen.on, low: seen.on, high: seen.on) if seen
          Anchor.new(key: kind.key.to_sym, label: kind.label, **dates, seen:,
                     measured: !seen.nil? || come?(kind, dates[:date]),
                     working: working(kind, past.size, shift, seen, start + middle + shift))
        end

        # [10th, 50th, 90th] of days from the start, over the futures.
        def this_year(kind, usual)
          found = spotters.filter_map { |spotter| spotter.find(kind) }
          found.empty? ? [usual] * 3 : Percentile.spread(found)
        end

        # It has come when every future says the same day, and that day is not ahead.
        def come?(kind, date)
          spotters.map { |spotter| spotter.find(kind) }.uniq.size == 1 && date <= @site.today
        end

        # Of a year that has not begun nothing is known but the past ones.
        def spotters
          return @site.past if start > @site.horizon

          @spotters ||= begin
            soils = @site.soil_futures(start, length)
            members.zip(soils).map { |days, kinds| @site.spotter(days, kinds, seen: seen_warmth) }
          end
        end

        def length = (finish - start).to_i + 1
        def members = @members ||= @site.futures(start, length)

        def warm_offset(days, degree_days, base)
          RunningSum.reaching(degree_days, days.each_index) do |n|
            DegreeDays.sine(days[n].tmin, days[n].tmax, base)
          end
        end

        # Warmth marks that someone saw this year, {days from the start at the station => degree days}: later ones are
        # counted from them.
        def seen_warmth
          kinds.select { |_, kind| kind.by == "warmth" }.filter_map do |key, kind|
            mark = @site.seen.anchor(key, self)
            [[(mark.on - start).to_i - @site.shift(kind.season), 0].max, kind.degree_days.to_f] if mark
          end.to_h
        end

        def working(kind, years, shift, seen, computed)
          station = @site.station ? "at #{@site.station.name}" : "at this station"
          had = "#{years} of #{@site.history.size} past years #{station} had it; 10th to 90th percentile"
          [Step.new(label: "Rule", formula: kind.rule, value: kind.label, source: kind.source),
           Step.new(label: "History", formula: had, value: "the usual spread", source: "common_practice"),
           (moved(shift) unless shift.zero?), (sighted(seen, computed) if seen)].compact.freeze
        end

        def moved(shift)
          Step.new(label: "Moved", formula: "Hopkins' law from the station to here: #{moved_by}",
                   value: "#{format("%+d", shift)} days", source: "hopkins")
        end

        def sighted(seen, computed)
          who = seen.by || "someone here"
          Step.new(label: "Seen", formula: "#{who} saw it. The app had worked out {day:#{computed}}",
                   value: "#{format("%+d", (seen.on - computed).to_i)} days", source: "own_records")
        end

        def moved_by
          Hopkins.parts(@site.station, @site.place).map { |cause, days| "#{cause} #{format("%+.1f", days)}" }.join(", ")
        end
      end
    end
  end
end
