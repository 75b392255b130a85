# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # How many days of a stretch of the year were fit for a kind of work in past years, by the day's weather.
      class Workable
        Held = Value.define(:days, :of, :years)

        def initialize(site)
          @site = site
          @sums = {}
        end

        # Held for days `from..to` of this season-year under Limits; nil without any.
        def held(limits, from, to)
          return unless limits

          start = Year.start_of(from, @site.latitude)
          first, last = (from - start).to_i, (to - start).to_i
          counts = sums(limits).map { |sum| sum[[last + 1, sum.size - 1].min] - sum[first] }
          Held.new(days: Percentile.of(counts.sort, 0.5).round, of: last - first + 1, years: counts.size)
        end

        private

        # For each past year the fit days before each of its days.
        def sums(limits)
          @sums[limits] ||= years.map do |days, soils|
            fit = days.each_index.map { |n| limits.fit_day?(days[n], soils[n], days[n + 1]&.rain) }
            fit.each_with_object([0]) { |yes, sum| sum << (sum.last + (yes ? 1 : 0)) }
          end
        end

        def years = @years ||= @site.history.map { |first| [@site.past_days(first), @site.past_soils(first)] }
      end
    end
  end
end
