# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What a place's year and weather are, seen from `today`: measured days, the forecast, and beyond it
      # what is usual. Give it a feed (see Day), where the place is, a soil texture and today's date.
      class Site
        YEARS = 10     # of history behind "usual"
        FORECAST = 10  # days that a feed is asked ahead
        NEARLY_ALWAYS, MOSTLY = 0.92, 0.5 # of the years, for the soil that is usual
        NAMES = %i[tmin tmax rain wind humidity].freeze # what is usual of a day
        Ground = Value.define(:fill, :kind, :standing)
        Origin = Value.define(:station, :measured_years, :regional_years, :shift)

        attr_reader :latitude, :longitude, :elevation, :texture, :today, :feed, :seen, :clock

        # climate: a key of knowledge/climates.yml, or nil: told from the usual weather. seen: what people saw (Seen).
        # lake: is there open water? clock: a Clock, or nil: by longitude.
        def initialize(feed:, latitude:, texture:, today:, longitude: nil, elevation: nil, climate: nil, seen: Seen::NONE, lake: false,
                       clock: nil)
          @feed, @latitude, @longitude, @elevation, @texture, @today = feed, latitude, longitude, elevation, texture, today
          @seen, @lake, @clock = seen, lake, clock || Clock.new(nil, longitude:)
          @climate = climate && Knowledge.shipped.climates.fetch(climate)
          @years, @ground = {}, {}
          read_history
        end

        def lake? = @lake

        # What the year hangs on here.
        def climate = @climate ||= Climate.of(months)

        # First dates of the full season-years behind us.
        def history = @history ||= (1..YEARS).map { |n| Year.start_of(today, latitude) << (12 * n) }

        def year(date = today)
          first = Year.start_of(date, latitude)
          @years[first] ||= Year.new(self, first)
        end

        def day(date) = known(date) || usual(date)
        def days(range) = range.map { |date| day(date) }

        # Days that a station measured, or that broad values stand in for where none was.
        def measured(range) = range.filter_map { |date| (day = known(date)) && day.standing != :forecast ? day : nil }

        # The last day that the forecast reaches; today where there is none.
        def horizon = @horizon ||= (today..(today + FORECAST - 1)).take_while { |date| known(date) }.last || today

        def forecast? = horizon > today

        # The first day from `date` on with at least `mm` of rain, measured or forecast, or nil.
        def next_rain(date, mm) = (date..horizon).find { |d| (day(d).rain || 0) >= mm }

        # Was the weather of that day measured or forecast, not guessed from other years?
        def known?(date) = !known(date).nil?

        # Soil on a date: measured weather through the bucket, then the forecast, then sliding to what is usual.
        def ground(date)
          @ground[date] ||= date <= horizon ? bucket.fetch(date).first : later_ground(date)
        end

        # The soil's class that is usual on a day of the year: dry or frozen only where nearly always, since a wet spell
        # between is what one waits for.
        def usual_soil(date) = usual_soils[[date.yday, 365].min]

        # Days of a season-year on which the usual soil changes its class.
        def soil_turns(year)
          (@soil_turns ||= {})[year.start] ||= ((year.start + 1)..year.finish).reject { |date| usual_soil(date) == usual_soil(date - 1) }
        end

        # The hours ahead, for all kinds of work.
        def hours = @hours ||= Hours.new(self).all

        # A kind of work over the hours ahead, under the limits of labels (see Limits#under).
        def fit(key, labels = nil)
          limits = Knowledge.shipped.fits.fetch(key).under(labels&.[](key))
          (@fits ||= {})[limits] ||= Fit.new(self, limits)
        end

        # Fit days of past years under the limits of labels.
        def workable(labels = nil)
          (@workable ||= {})[labels] ||= Workable.new(self, Knowledge.shipped.fits.to_h { |key, limits| [key, limits.under(labels&.[](key))] })
        end

        # The day's water (Soil::Flow); nil past the forecast.
        def flow(date) = date <= horizon ? bucket[date]&.last : nil

        # Means of a calendar day, smoothed over 15 days.
        def usual(date)
          row = usual_rows[[date.yday, 365].min]
          Day.new(date:, **row, standing: :usual)
        end

        # Futures: the days from a date on as they are known, then as each past year went on. [[Day]]
        def futures(from, count) = history.map { |first| spell(from, count, first) }

        # The same in the soil's class: [[class]].
        def soil_futures(from, count) = history.map { |first| soil_spell(from, count, first) }

        # One past year: its days, and its soils.
        def past_days(first) = spell(first, length(first), first)
        def past_soils(first) = soil_spell(first, length(first), first)

        # The past years' Spotters, once for all marks.
        def past = @past ||= history.map { |first| spotter(past_days(first), past_soils(first)) }

        def spotter(days, soils, seen: {}) = Spotter.new(days, soils, dry_middle:, rains: climate.rains, seen:)

        # Days by which a mark comes later here than at the station.
        def shift(kind)
          return 0 unless station && kind.season

          days = Hopkins.days(station, place).round
          kind.season == "spring" ? days : -days
        end

        def station = @station ||= feed.station
        def place = Station.new(latitude:, longitude:, elevation:)

        # Whose weather this is.
        def origin
          regional = history.count { |first| (day = known(first + 180)) && day.standing == :regional }
          Origin.new(station:, measured_years: YEARS - regional, regional_years: regional, shift: station ? Hopkins.days(station, place).round : 0)
        end

        # [rising, setting] in hours on the clock; nil where the sun does not cross the horizon.
        def sun(date) = Sun.rise_and_set(date, latitude, longitude || 0.0).map { |time| time && clock.hours(time) }

        # Mean weather of each month, from January.
        def months
          @months ||= (1..12).map do |month|
            first = Date.new(2023, month)
            rows = (first.yday..(first.next_month - 1).yday).map { |yday| usual_rows[yday] }
            Climate::Month.new(mean: rows.sum { |row| (row[:tmin] + row[:tmax]) / 2 } / rows.size, low: rows.sum { |row| row[:tmin] } / rows.size,
                               rain: rows.sum { |row| row[:rain] })
          end
        end

        private

        def known(date) = @list[date.jd - @base]

        def read_history
          first = history.last
          @base = first.jd
          @list = Array.new(today.jd + FORECAST - @base)
          feed.daily(first..(today + FORECAST - 1)).each do |day|
            ahead = day.date > today
            next if ahead && day.standing == :regional

            @list[day.date.jd - @base] = ahead ? day.with(standing: :forecast) : day
          end
          raise BadInput.new("There is no weather to work with.", field: :feed) if @list.none?
        end

        def length(first) = ((first >> 12) - first).to_i

        # `count` days from a date on; past what is known, those of the season-year that began on `past`.
        def spell(from, count, past)
          start = Year.start_of(from, latitude)
          (0...count).map do |n|
            date = from + n
            known(date) || (date > today ? known(twin(date, start, past)) : nil) || usual(date)
          end
        end

        def soil_spell(from, count, past)
          start = Year.start_of(from, latitude)
          (0...count).map do |n|
            date = from + n
            ground(date <= horizon ? date : twin(date, start, past)).kind
          end
        end

        # The day of a past season-year that is as far from its start; a spell that runs on into the next year begins it again.
        def twin(date, start, past) = past + ((date - start).to_i % 365)

        def bucket
          @bucket ||= begin
            soil = Soil.new(texture:, latitude:, elevation:)
            (history.last..horizon).to_h do |date|
              day = day(date)
              kind = soil.pass(day, felt: seen.soils[date])
              [date, [Ground.new(fill: soil.fill, kind:, standing: day.standing), soil.flow]]
            end
          end
        end

        def later_ground(date)
          start = bucket.fetch(horizon).first.fill
          usual = usual_fill[[date.yday, 365].min]
          fill = usual + ((start - usual) * Math.exp(-(date - horizon).to_i / 12.0))
          kind = usual(date).tmean < -1 ? :frozen : Soil.kind(fill)
          Ground.new(fill:, kind:, standing: :usual)
        end

        def usual_rows
          @usual_rows ||= smooth(history_by_yday { |day| day.to_h.values_at(*NAMES) }).transform_values { |row| NAMES.zip(row).to_h }
        end

        def usual_fill
          @usual_fill ||= smooth(history_by_yday { |day| [ground(day.date).fill] }).transform_values(&:first)
        end

        def usual_soils
          @usual_soils ||= smooth(history_by_yday { |day| Soil::CLASSES.map { |kind| ground(day.date).kind == kind ? 1.0 : 0.0 } }, reach: 14)
                           .transform_values { |shares| usual_class(Soil::CLASSES.zip(shares).to_h) }
        end

        def usual_class(share)
          if share[:frozen] >= MOSTLY then :frozen
          elsif share[:dry] >= NEARLY_ALWAYS then :dry
          elsif share[:saturated] >= MOSTLY then :saturated
          else share[:saturated] + share[:wet] >= MOSTLY ? :wet : :moist
          end
        end

        # Sums and counts of each column on each day of the year.
        def history_by_yday
          rows = Hash.new { |hash, yday| hash[yday] = [] }
          measured(history.last...history.first.next_year).each { |day| rows[[day.date.yday, 365].min] << yield(day) }
          rows = measured(history.last..today).each_with_object(rows) { |day, all| all[[day.date.yday, 365].min] << yield(day) } if rows.empty?
          rows.transform_values { |list| list.transpose.map { |column| [column.compact.sum(0.0), column.count { |v| !v.nil? }] } }
        end

        # Running means over fifteen days of the year; a wider reach where that holds nothing.
        def smooth(rows, reach: 7)
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

        # Days from the start of the season-year to the middle of the driest ninety days.
        def dry_middle
          @dry_middle ||= begin
            start = Year.start_of(today, latitude).yday
            rain = (0...365).map { |n| usual_rows[((start - 1 + n) % 365) + 1][:rain] }
            sum = rain.first(90).sum
            sums = (0...365).map { |n| sum.tap { sum += rain[(n + 90) % 365] - rain[n] } }
            (sums.index(sums.min) + 45) % 365
          end
        end
      end
    end
  end
end
