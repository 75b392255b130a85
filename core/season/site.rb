# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What a place's year and weather are, seen from `today`: measured days, the forecast, and beyond it
      # what is usual. Give it a feed (see Day), a latitude, a soil texture and today's date.
      class Site
        YEARS = 10     # of history behind "usual"
        FORECAST = 10  # days that the feed can see ahead
        Ground = Value.define(:fill, :kind, :standing)

        attr_reader :latitude, :texture, :today, :feed

        def initialize(feed:, latitude:, texture:, today:)
          @feed, @latitude, @texture, @today = feed, latitude, texture, today
          @years = {}
          @ground = {}
          read_history
        end

        # First dates of the full season-years behind us.
        def history = @history ||= (1..YEARS).map { |n| Year.start_of(today, latitude) << (12 * n) }

        def year(date = today)
          first = Year.start_of(date, latitude)
          @years[first] ||= Year.new(self, first)
        end

        def day(date)
          @days[date] || usual(date)
        end

        def days(range) = range.map { |date| day(date) }
        def measured(range) = range.filter_map { |date| (day = @days[date]) && day.standing == :measured ? day : nil }
        def horizon = today + FORECAST - 1

        # Soil on a date: measured weather through the bucket, then the forecast, then sliding to what is usual.
        def ground(date)
          @ground[date] ||= date <= horizon ? bucket.fetch(date) : later_ground(date)
        end

        # Mean rain of a calendar day, mm, smoothed over 15 days.
        def usual(date)
          row = usual_rows[[date.yday, 365].min]
          Day.new(date:, **row, standing: :usual)
        end

        # The first day from `date` on with at least `mm` of rain, measured or forecast, or nil.
        def next_rain(date, mm)
          (date..horizon).find { |d| day(d).rain >= mm }
        end

        # Days that one usually waits for such a rain in that part of the year (median over the history).
        def usual_wait(date, mm)
          waits = history.filter_map do |first|
            from = first + (date - Year.start_of(date, latitude)).to_i
            measured(from..(from + 120)).index { |day| day.rain >= mm }
          end
          waits.empty? ? 30 : waits.sort[waits.size / 2]
        end

        private

        def read_history
          @days = feed.daily(history.last..horizon).to_h do |day|
            standing = day.date <= today ? :measured : :forecast
            [day.date, day.with(standing:)]
          end
        end

        def bucket
          @bucket ||= begin
            soil = Soil.new(texture:, latitude:)
            @days.transform_values do |day|
              kind = soil.pass(day)
              Ground.new(fill: soil.fill, kind:, standing: day.standing)
            end
          end
        end

        def later_ground(date)
          start = bucket.fetch(horizon).fill
          usual = usual_fill[[date.yday, 365].min]
          fill = usual + ((start - usual) * Math.exp(-(date - horizon).to_i / 12.0))
          kind = usual(date).tmean < -1 ? :frozen : Soil.kind(fill)
          Ground.new(fill:, kind:, standing: :usual)
        end

        def usual_rows
          @usual_rows ||= smooth(history_by_yday { |day| [day.tmin, day.tmax, day.rain, day.wind, day.humidity] })
                          .transform_values { |row| %i[tmin tmax rain wind humidity].zip(row).to_h }
        end

        def usual_fill
          @usual_fill ||= smooth(history_by_yday { |day| [bucket.fetch(day.date).fill] }).transform_values(&:first)
        end

        def history_by_yday
          rows = Hash.new { |hash, yday| hash[yday] = [] }
          measured(history.last...history.first.next_year).each { |day| rows[[day.date.yday, 365].min] << yield(day) }
          rows.transform_values { |list| list.transpose.map { |column| column.sum / column.size } }
        end

        def smooth(rows, reach: 7)
          (1..365).to_h do |yday|
            near = (-reach..reach).map { |step| rows.fetch(((yday + step - 1) % 365) + 1) }
            [yday, near.transpose.map { |column| column.sum / column.size }]
          end
        end
      end
    end
  end
end
