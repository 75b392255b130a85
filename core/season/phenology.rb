# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A plant's phases in a site's year. A phase that was seen early or late moves itself and the later ones.
      class Phenology
        # early and late: the 10th and 90th percentile of `from` this year; done_early and done_late: of `to`; moved:
        # days that a sighting moved it.
        Span = Value.define(:phase, :from, :to, :early, :late, :done_early, :done_late, :moved, :source)
        # What the rules know a patch to be in, in order of how far the season is.
        STAGES = %i[dormant leaf flower green_seed ripe_seed].freeze
        ORDER = { emerging: 0, leaf: 1, budding: 2, flower: 3, green_seed: 4, hardening: 5, ripe_seed: 6,
                  shedding: 7 }.freeze
        OWN = 3 # days by which plants of one kind differ on one ground, where phases.yml does not say (memory)

        attr_reader :plant, :site

        # sightings: [Seen::Phase], by default what people saw of this plant here.
        def initialize(plant, site, sightings: site.seen.of(plant))
          @plant, @site, @sightings = plant, site, sightings
          @spans, @begun, @phenophases = {}, {}, {}
        end

        # The same plant with its calendar moved so that it is in `phase` on `date`.
        def seen(phase, date)
          return self if phase == stage_on(date)

          self.class.new(plant, site, sightings: @sightings + [Seen::Phase.new(plant: plant.key, phase:, on: date)])
        end

        # The phases that the plant's file gives, in its order, moved by what was seen. One that began in the year may
        # end in the next.
        def spans(year)
          @spans[year.start] ||= moved(rows.map { |row| span(row, year) }, year).freeze
        end

        # All phenophases of a year, those that follow from others too, in the order they begin; cut to the year: what
        # began in the year before stands in it from its first day.
        def phenophases(year)
          @phenophases[year.start] ||=
            [site.year(year.start - 1), year].flat_map { |one| begun(one) }.filter_map { |span| cut(span, year) }
                                             .sort_by { |span| [span.from, ORDER.fetch(span.phase)] }.freeze
        end

        # [Span] of a phase that have days between two dates, whole: those that follow on each other as one, past New
        # Year too.
        def spells(phase, from, to)
          spans = years(from << 12, to).flat_map { |year| begun(year) }.select { |span| span.phase == phase }
          whole = spans.sort_by(&:from).each_with_object([]) do |span, all|
            if all.any? && span.from <= all.last.to + 1 then all[-1] = joined(all.last, span)
            else all << span
            end
          end
          whole.select { |span| span.from <= to && span.to >= from }
        end

        # All phases on a date; asked so often that each is found once.
        def phases_on(date)
          (@on ||= {})[date.jd] ||=
            phenophases(site.year(date)).select { |span| date.between?(span.from, span.to) }.map(&:phase).freeze
        end

        # The furthest stage on a date; :dormant when none.
        def stage_on(date) = self.class.furthest(phases_on(date))

        # The furthest stage among phases.
        def self.furthest(phases) = STAGES.reverse_each.find { |stage| phases.include?(stage) } || :dormant

        # The first day on or after `date` in which the plant is in `phase`, within a year; nil if never.
        def next(phase, date)
          spells(phase, date, site.year(date >> 12).finish).map { |span| [span.from, date].max }.min
        end

        private

        # The season-years from a date to another.
        def years(from, to)
          all = [site.year(from)]
          all << site.year(all.last.finish + 1) while all.last.finish < to
          all
        end

        # All phenophases that begin in a year.
        def begun(year)
          @begun[year.start] ||=
            (spans(year) + kinds.flat_map { |key, kind| derived(key, kind, spans(year)) }).freeze
        end

        def cut(span, year)
          from, to = [span.from, year.start].max, [span.to, year.finish].min
          return if from > to
          return span if from == span.from && to == span.to

          span.with(from:, to:, early: [span.early, from].max, late: [span.late, from].max)
        end

        def joined(one, other)
          return one if other.to <= one.to

          one.with(to: other.to, done_early: other.done_early, done_late: other.done_late)
        end

        # Of each phase, the rows for this climate where the file has any, else those for every climate.
        def rows
          @rows ||= begin
            own, any = plant.phases.partition { |row| row["climate"] }
            here = own.select { |row| row["climate"].include?(site.climate.key) }
            told = here.map { |row| row["phase"] }
            here + any.reject { |row| told.include?(row["phase"]) }
          end
        end

        def kinds
          given = rows.map { |row| row["phase"].to_sym }
          @kinds ||= Knowledge.shipped.phases.reject do |key, kind|
            given.include?(key) || plant.is?(*kind.fetch("not", []).map(&:to_sym))
          end
        end

        def span(row, year)
          own = row["spread"] || Knowledge.shipped.phases.dig(row["phase"].to_sym, "spread") || OWN
          from, early, late = moment(row["from"], year, own)
          to, done_early, done_late = moment(row["to"], year, own)
          Span.new(phase: row["phase"].to_sym, from:, to:, early:, late:, done_early:, done_late:, moved: 0,
                   source: row["source"])
        end

        # [date, early, late]: by degree days above a base, or days from an anchor, of this year or the next; the end of
        # the year where there is none. own: days by which plants differ.
        def moment(row, year, own)
          year = site.year(year.finish + 1) if row["year"] == "next"
          if row["degree_days"]
            return site.climate.warmth_driven? ? warm(row, year, own) : moment(row["else"], year, own)
          end

          anchor = year.moment(row["anchor"].to_sym) || year.moment(:season_end)
          days = row.fetch("days", 0)
          own = 0 if EDGES.include?(row["anchor"])
          [anchor.date + days, anchor.low + days - own, anchor.high + days + own]
        end

        EDGES = %w[season_start season_end].freeze
        private_constant :EDGES

        def warm(row, year, own)
          found = year.warm(row["degree_days"], row["base"]) or return [year.finish] * 3
          low, middle, high = found
          [middle, low - own, high + own].map { |date| date + row.fetch("days", 0) }
        end

        def moved(spans, year)
          sightings = @sightings.select { |sighting| nearest_year(sighting) == year.start }.sort_by(&:on)
          sightings.reduce(spans) { |now, sighting| after(now, sighting) }
        end

        # A phase seen about New Year belongs to the year whose span is nearest.
        def nearest_year(sighting)
          years = [-12, 0, 12].map { |months| site.year(sighting.on >> months) }
          own = rows.select { |row| row["phase"].to_sym == main(sighting.phase) }
          near = years.product(own).map { |year, row| [year, span(row, year)] }
          near.min_by { |_, span| off(span, sighting).abs }&.first&.start
        end

        def after(spans, sighting)
          order = ORDER.fetch(sighting.phase, nil) or return spans
          same = spans.select { |span| span.phase == main(sighting.phase) }
          target = same.min_by { |span| off(whole(span, sighting.phase), sighting).abs } or return spans
          days = off(whole(target, sighting.phase), sighting)
          return spans if days.zero? && !sighting.began

          first = [order, ORDER.fetch(target.phase)].min
          spans.map do |span|
            ORDER.fetch(span.phase) >= first && span.from >= target.from ? move(span, days, order) : span
          end
        end

        def move(span, days, order)
          near = ORDER.fetch(span.phase) <= order ? 0 : OWN
          from = span.from + days
          span.with(from:, to: span.to + days, early: from - near, late: from + near,
                    done_early: span.done_early + days, done_late: span.done_late + days, moved: span.moved + days)
        end

        # Days by which a span must move to hold the day on which its phase was seen.
        def off(span, sighting)
          if sighting.began || sighting.on < span.from then (sighting.on - span.from).to_i
          elsif sighting.on > span.to then (sighting.on - span.to).to_i
          else 0
          end
        end

        # The stage whose span a derived phase is cut from or leads to.
        def main(phase)
          kind = Knowledge.shipped.phases[phase]
          kind && rows.none? { |row| row["phase"].to_sym == phase } ? (kind["of"] || kind["before"])&.to_sym : phase
        end

        # The phase's own part of that stage.
        def whole(span, phase)
          return span if span.phase == phase

          derived(phase, Knowledge.shipped.phases.fetch(phase), [span]).first || span
        end

        # A leaf that is there all winter does not emerge on the first day of the year.
        def derived(key, kind, spans)
          spans.select { |span| span.phase == (kind["of"] || kind["before"])&.to_sym }.filter_map do |span|
            next if kind["first"] && span.from == site.year(span.from).start

            from, to = part(kind, span)
            next if to < from

            began, ended = (from - span.from).to_i, (to - span.to).to_i
            span.with(phase: key, from:, to:, early: span.early + began, late: span.late + began,
                      done_early: span.done_early + ended, done_late: span.done_late + ended, source: kind["source"])
          end
        end

        def part(kind, span)
          if kind["before"] then [span.from - kind["days"], span.from - 1]
          elsif kind["first"] then [span.from, [span.from + kind["first"] - 1, span.to].min]
          else [span.to - ((span.to - span.from).to_i * kind["last"]).floor, span.to]
          end
        end
      end
    end
  end
end
