# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Finds a mark in one year's weather: days from its start, or nil where that year had none.
      class Spotter
        BASE = 5.0 # °C, of the warmth that marks count
        AUTUMN = 0.6 # of a grass's growth comes before the turn of the year in a winter-wet climate (memory)
        LENGTHENS = 45 # days after the start before which buds do not answer warmth, however mild the winter (memory)
        MIDDLE = 200 # days after the start: frosts before it are spring's, after it autumn's

        # days: [Day] of the season-year in order; soils: their classes; dry_middle: days from the start to the middle
        # of the dry season; rains: what counts as soaking here, where not as the library says; seen: {days => degree
        # days} of warmth marks that someone saw, from which warmth is counted on.
        def initialize(days, soils, dry_middle:, rains: {}, seen: {})
          @days, @soils, @dry_middle, @rains, @seen = days, soils, dry_middle, rains || {}, seen
          @found = {}
        end

        # The day of an AnchorKind in these days; nil where it does not come.
        def find(kind)
          @found.fetch(kind.key) { @found[kind.key] = send(kind.by, kind) }
        end

        private

        def warmth(kind)
          near = @seen.select { |_, degree_days| degree_days < kind.degree_days }.max_by(&:last)
          day, sum = near || [LENGTHENS - 1, 0.0]
          RunningSum.reaching(kind.degree_days, (day + 1)...@days.size, from: sum) { |n| warm(n) }
        end

        # Degree days of a day.
        def warm(day) = [@days[day].tmean - BASE, 0].max

        def frost(kind)
          nights = @days.each_index.select { |n| @days[n].tmin <= kind.at }
          spring, autumn = nights.partition { |n| n < MIDDLE }
          kind.nth == "last" ? spring.last : autumn[kind.nth - 1]
        end

        def frozen(kind) = runs(:frozen).find { |run| run.last >= MIDDLE && run.size >= kind.days }&.first

        def thawed(_kind)
          last = runs(:frozen).reverse.find { |run| run.first < MIDDLE && run.size >= 3 }&.last
          last && (last + 1)
        end

        # Wet seasons run from one dry middle to the next; the season-year may begin in either.
        def rains(kind)
          (@dry_middle...@days.size).find { |n| soaked?(n, kind) }
        end

        def wet_end(kind)
          range = @dry_middle > @days.size / 2 ? (0...@dry_middle) : (@dry_middle...@days.size)
          range.to_a.reverse.find { |n| soaked?(n, kind) }
        end

        def soaked?(at, kind)
          mm, within = kind.by == "rains" ? @rains.values_at("mm", "within") : []
          mm ||= kind.mm
          @days[[at - (within || kind.within) + 1, 0].max..at].sum { |day| day.rain || 0.0 } >= mm
        end

        # Grass grows with warmth while the soil has water, from the first rains; where the season-year begins inside
        # the wet season, from its start with what a usual autumn has given.
        def growth(kind)
          first = rains(Knowledge.shipped.anchors.fetch("first_rains"))
          winter_wet = @dry_middle > @days.size / 2
          from = winter_wet ? 0 : first or return
          sum = winter_wet ? kind.degree_days * AUTUMN : 0.0
          finish = winter_wet ? @dry_middle : @days.size
          RunningSum.reaching(kind.degree_days, from...finish, from: sum) { |n| @soils[n] == :dry ? 0 : warm(n) }
        end

        def browned(kind)
          last = wet_end(Knowledge.shipped.anchors.fetch("wet_end")) or return
          dry = runs(:dry).find do |run|
            run.last >= last + kind.days && ([run.first, last + 1].max..run.last).count >= kind.days
          end
          dry && ([dry.first, last + 1].max + kind.days - 1)
        end

        def ice(_kind)
          covered = pond.each_index.select { |n| n < MIDDLE && pond[n].last }
          covered.last && (covered.last + 1)
        end

        def water(kind) = pond.index { |celsius, _| celsius >= kind.at }

        def runs(kind)
          (@runs ||= {})[kind] ||= @soils.each_index.select { |n| @soils[n] == kind }
                                         .slice_when { |a, b| b > a + 1 }.to_a
        end

        # [[°C, covered with ice]] of each day.
        def pond
          @pond ||= begin
            water = Water.new(temperature: @days.first(15).sum(&:tmean) / 15)
            @days.map { |day| [water.pass(day).temperature, water.covered?] }
          end
        end
      end
    end
  end
end
