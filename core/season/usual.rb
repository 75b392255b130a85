# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What is usual on each day of the year at a site, over the years behind us: running means, so that one odd day
      # does not show.
      class Usual
        NAMES = %i[tmin tmax rain wind humidity].freeze
        NEARLY_ALWAYS, MOSTLY = 0.92, 0.5 # of the years
        REACH, SOIL_REACH = 7, 14 # days to each side
        NOTHING = [0.0, 0].freeze # no sum, of no days
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
            Climate::Month.new(mean: (low + (days.sum { |row| row[:tmax] } / days.size)) / 2, low:,
                               rain: days.sum { |row| row[:rain] || 0 })
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
          @rows ||= smooth(history_by_yday { |day| day.to_h.values_at(*NAMES) })
                    .transform_values { |row| NAMES.zip(row).to_h }
        end

        def fills = @fills ||= smooth(history_by_yday { |day| [@site.ground(day.date).fill] }).transform_values(&:first)

        def soils
          @soils ||= smooth(soils_by_yday, reach: SOIL_REACH)
                     .transform_values { |shares| soil_class(Soil::CLASSES.zip(shares).to_h) }
        end

        def soil_class(share)
          if share[:frozen] >= MOSTLY then :frozen
          elsif share[:dry] >= NEARLY_ALWAYS then :dry
          elsif share[:saturated] >= MOSTLY then :saturated
          else share[:saturated] + share[:wet] >= MOSTLY ? :wet : :moist
          end
        end

        # How often each class was on each day of the year, of how many.
        def soils_by_yday
          days = @site.measured(@site.history.last..@site.today)
          days.group_by { |day| of(day.date) }.transform_values do |same|
            counts = same.map { |day| @site.ground(day.date).kind }.tally
            Soil::CLASSES.map { |kind| [(counts[kind] || 0).to_f, same.size] }
          end
        end

        # Sums and counts of each column on each day of the year.
        def history_by_yday(&)
          history = @site.history
          days = @site.measured(history.last...history.first.next_year)
          days = @site.measured(history.last..@site.today) if days.empty?
          rows = days.group_by { |day| of(day.date) }.transform_values { |same| same.map(&) }
          rows.transform_values do |list|
            list.transpose.map { |column| [column.compact.sum(0.0), column.count { |v| !v.nil? }] }
          end
        end

        # Running means over the days to each side, the year closed to a ring; where those hold nothing, the nearest day
        # that does.
        def smooth(rows, reach: REACH)
          size = rows.each_value.first.size
          columns = (0...size).map { |n| running((1..365).map { |yday| rows[yday]&.at(n) || NOTHING }, reach) }
          (1..365).to_h { |yday| [yday, columns.map { |column| column[yday - 1] }] }
        end

        # Means over 2 × reach + 1 cells of [sum, count].
        def running(cells, reach)
          ring = cells.last(reach) + cells + cells.first(reach)
          sum, count = ring.first((2 * reach) + 1).transpose.map(&:sum)
          means = cells.each_index.map do |n|
            mean = count.zero? ? nil : sum / count
            gone, come = ring[n], ring[n + (2 * reach) + 1] || NOTHING
            sum += come[0] - gone[0]
            count += come[1] - gone[1]
            mean
          end
          filled(means)
        end

        def filled(means)
          return means unless means.include?(nil) && means.any?

          known = means.each_index.select { |n| means[n] }
          means.each_index.map do |n|
            means[n] || means[known.min_by { |other| [(other - n).abs, 365 - (other - n).abs].min }]
          end
        end
      end
    end
  end
end
