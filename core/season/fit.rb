# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Which of the hours ahead are fit for a kind of work, and what stands against each of the others.
      class Fit
        # against: [Against], none when it is fit.
        Said = Value.define(:hour, :against) do
          def fit? = against.empty?
        end
        # key: what it is about; value: what the hour has; limit: what was asked; `unknown` where it was not measured.
        Against = Value.define(:key, :value, :limit, :unknown)
        Stretch = Value.define(:date, :from, :to) do
          def hours = to - from
        end
        DRY = 0.1 # mm an hour
        SHORTEST = 2 # hours that are worth going out for

        attr_reader :limits, :site

        def initialize(site, limits)
          @site, @limits = site, limits
        end

        # [Said] for each of the hours ahead.
        def hours
          @hours ||= list.each_index.map { |n| Said.new(hour: list[n], against: against(n).freeze) }.freeze
        end

        # Fit stretches of two hours and more, soonest first; they end with the day.
        def stretches
          @stretches ||= hours.select(&:fit?).slice_when { |a, b| !follows?(a.hour, b.hour) }
                              .map { |run| stretch(run.first.hour, run.last.hour) }
                              .select { |one| one.hours >= SHORTEST }.freeze
        end

        def next_stretch(from = site.today) = stretches.find { |stretch| stretch.date >= from }

        # [[date, its longest stretch]], most fit hours first.
        def best_days
          stretches.group_by(&:date).map { |date, all| [date, all.max_by(&:hours), all.sum(&:hours)] }
                   .sort_by { |date, _, hours| [-hours, date] }.map { |date, longest, _| [date, longest] }
        end

        # {date => fit hours} of the days ahead.
        def hours_by_day = (@hours_by_day ||= stretches.group_by(&:date).transform_values { |all| all.sum(&:hours) })

        def on(date) = stretches.select { |stretch| stretch.date == date }

        # What keeps a day from being fit: none where two hours together are, else [Against] of its daylight, the one
        # that keeps off most hours first.
        def kept_off(date)
          return [] if on(date).any?

          found = hours.select { |said| said.hour.date == date && said.hour.light }.flat_map(&:against)
          kept = found.group_by(&:key).sort_by { |key, all| [-all.size, key] }
          kept.empty? ? [no(:dark)] : kept.map { |_, all| all.max_by { |one| one.value.to_f } }
        end

        # What stands against a day most often: [Against, hours], by daylight.
        def blocked_by(date)
          lit = hours.select { |said| said.hour.date == date && said.hour.light && !said.fit? }
          lit.flat_map(&:against).group_by(&:key).max_by { |_, all| all.size }&.then { |_, all| [all.first, all.size] }
        end

        private

        def list = site.hours
        def follows?(hour, other) = other.date == hour.date && other.at == hour.at + 1
        def stretch(first, last) = Stretch.new(date: first.date, from: first.at, to: last.at + 1)

        def against(at)
          hour = list[at]
          [*dark(hour), *ground(hour), *air(hour), *wet(hour, at)]
        end

        def dark(hour) = limits.daylight && !hour.light ? [no(:dark)] : []
        def ground(hour) = limits.soil.include?(hour.soil.to_s) ? [] : [no(:soil, hour.soil, limits.soil)]

        def air(hour)
          found = [range(:wind, hour.wind, limits.wind), above(:gust, hour.gust, limits.gust),
                   range(:temperature, hour.temperature, limits.temperature),
                   range(:delta_t, hour.delta_t, limits.delta_t)].compact
          found << no(:inversion) if limits.still_air && hour.inversion
          found
        end

        def wet(hour, at)
          found = []
          if (limits.herbicide? || limits.calm_water) && (hour.rain || 1) > DRY
            found << no(:raining, hour.rain, DRY, unknown: hour.rain.nil?)
          end
          found << no(:wet_leaf) if limits.dry_h && (hour.leaf_wet || rained?(at))
          coming = limits.rainfast_h && rain_within(at, limits.rainfast_h)
          if limits.rainfast_h && (coming.nil? || coming > DRY)
            found << no(:rain_coming, coming, limits.rainfast_h, unknown: coming.nil?)
          end
          found
        end

        def rained?(at) = list[[at - limits.dry_h.to_i, 0].max...at].any? { |hour| (hour.rain || 1) > DRY }

        # mm in the hours after; nil where the forecast ends before.
        def rain_within(at, hours)
          ahead = list[at + 1, hours.ceil]
          ahead.sum { |hour| hour.rain || 0 } if ahead.size == hours.ceil && ahead.all?(&:rain)
        end

        def range(key, value, limit)
          return if limit.nil?
          return no(key, nil, limit, unknown: true) if value.nil?

          no(key, value, limit) unless value.between?(limit["low"], limit["high"])
        end

        def above(key, value, limit)
          return if limit.nil?
          return no(key, nil, limit, unknown: true) if value.nil?

          no(key, value, limit) if value > limit
        end

        def no(key, value = nil, limit = nil, unknown: false) = Against.new(key:, value:, limit:, unknown:)
      end
    end
  end
end
