# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What is usual on each day of the year at a site, over the years behind us: running means, so that one odd day does
      # not show.
      class Usual
        NAMES = %i[tmin tmax rain wind humidity].freeze
        NEARLY_ALWAYS, MOSTLY = 0.92, 0.5 # of the years
        REACH, SOIL_REACH = 7, 14 # days to each side
        DRY_SPELL = 90 # days: the driest ones of the year lie about the middle of the dry season

        def initialize(site)
          @site = site
        end

        # Season::Day of means.
        def day(date) = Day.new(date:, **rows[of(date)], standing: :usual)

        # How full the soil is.
        def fill(date) = fills[of(date)]

        # The soil's class: dry or frozen only where nearly always, since a wet spell between is what one waits for.
        def soil(date) = soils[of(date)]

        # Mean weather of each month, from January: [Climate::Month].
        def months
          @months ||= (1..12).map do |month|
            first = Date.new(2023, month)
            days = (first.yday..(first.next_month - 1).yday).map { |yday| rows[yday] }
            low = days.sum { |row| row[:tmin] } / days.size
            Climate::Month.new(mean: (low + (days.sum { |row| row[:tmax] } / days.size)) / 2, low:, rain: days.sum { |row| row[:rain] || 0 })
          end
        end

        # Days from the start of the season-year to the middle of the driest ninety days.
        def dry_middle
          @dry_middle ||= begin
            start = Year.start_of(@site.today, @site.latitude).yday
            rain = (0...365).map { |n| rows[((start - 1 + n) % 365) + 1][:rain] || 0 }
            sum = rain.first(DRY_SPELL).sum
            sums = (0...365).map { |n| sum.tap { sum += rain[(n + DRY_SPELL) % 365] - rain[n] } }
            (sums.index(sums.min) + (DRY_SPELL / 2)) % 365
          end
        end

        private

        def of(date) = [date.yday, 365].min

        def rows
          @rows ||= smooth(history_by_yday { |day| day.to_h.values_at(*NAMES) }).transform_values { |row| NAMES.zip(row).to_h }
        end

        def fills = @fills ||= smooth(history_by_yday { |day| [@site.ground(day.date).fill] }).transform_values(&:first)

        def soils
          @soils ||= smooth(history_by_yday { |day| Soil::CLASSES.map { |kind| @site.ground(day.date).kind == kind ? 1.0 : 0.0 } }, reach: SOIL_REACH)
                     .transform_values { |shares| soil_class(Soil::CLASSES.zip(shares).to_h) }
        end

        def soil_class(share)
          if share[:frozen] >= MOSTLY then :frozen
          elsif share[:dry] >= NEARLY_ALWAYS then :dry
          elsif share[:saturated] >= MOSTLY then :saturated
          else share[:saturated] + share[:wet] >= MOSTLY ? :wet : :moist
          end
        end

        # Sums and counts of each column on each day of the year.
        def history_by_yday(&)
          history = @site.history
          days = @site.measured(history.last...history.first.next_year)
          days = @site.measured(history.last..@site.today) if days.empty?
          rows = days.group_by { |day| of(day.date) }.transform_values { |same| same.map(&) }
          rows.transform_values { |list| list.transpose.map { |column| [column.compact.sum(0.0), column.count { |v| !v.nil? }] } }
        end

        # Running means over fifteen days of the year; a wider reach where that holds nothing.
        def smooth(rows, reach: REACH)
          (1..365).to_h do |yday|
            near = (-reach..reach).filter_map { |step| rows[((yday + step - 1) % 365) + 1] }
            next [yday, smooth_wide(rows, yday)] if near.empty?

            [yday, near.transpose.map { |column| mean(column) }]
          end
        end

        def smooth_wide(rows, yday)
          rows.min_by { |day, _| [(day - yday).abs, 365 - (day - yday).abs].min }.last.map { |cell| mean([cell]) }
        end

        def mean(cells)
          count = cells.sum(&:last)
          count.zero? ? nil : cells.sum(&:first) / count
        end
      end
    end
  end
end
