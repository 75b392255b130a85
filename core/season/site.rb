# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What a place's year and weather are, seen from `today`: measured days, the forecast, and beyond it
      # what is usual. Give it a feed (see Day), where the place is, a soil texture and today's date.
      class Site
        YEARS = 10     # of history behind "usual"
        FLOWS = 60     # days back for which it is kept where the water went
        FORECAST = 10  # days that a feed is asked ahead
        GROWS = 5.0    # °C of a day's mean from which plants grow
        Ground = Value.define(:fill, :kind, :standing)
        Origin = Value.define(:station, :measured_years, :regional_years, :shift)

        attr_reader :latitude, :longitude, :elevation, :texture, :today, :feed, :seen, :clock

        # climate: a key of knowledge/climates.yml, or nil: told from the usual weather. seen: what people saw (Seen).
        # lake: is there open water? poorly_drained: does water leave the soil badly? clock: a Clock, or nil: by
        # longitude.
        def initialize(feed:, latitude:, texture:, today:, longitude: nil, elevation: nil, climate: nil,
                       seen: Seen::NONE, lake: false, poorly_drained: false, clock: nil)
          @feed, @texture, @today = feed, texture, today
          @latitude, @longitude, @elevation = latitude, longitude, elevation
          @seen, @lake, @poorly_drained, @clock = seen, lake, poorly_drained, clock || Clock.new(nil, longitude:)
          @climate = climate && Knowledge.shipped.climates.fetch(climate)
          @years = {}
          read_history
        end

        def inspect = "#<#{self.class.name} #{latitude} #{today}>"
        def lake? = @lake

        # What the year hangs on here.
        def climate = @climate ||= Climate.of(typical.months)

        # What is usual on each day of the year.
        def typical = @typical ||= Usual.new(self)

        # First dates of the full season-years behind us.
        def history = @history ||= (1..YEARS).map { |n| Year.start_of(today, latitude) << (12 * n) }

        # The Year, of this site's seasons, that holds a date.
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

        # Was the weather of that day measured or forecast here, not guessed from other years?
        def known?(date) = !known(date).nil?

        # Soil on a date: measured weather through the bucket, then the forecast, then sliding to what is usual.
        def ground(date)
          return (@later ||= {})[date] ||= settling(date, bucket.last.first.fill, horizon) if date > horizon

          return bucket[date.jd - @base].first unless date.jd < @base

          Ground.new(fill: typical.fill(date), kind: usual_soil(date), standing: :usual)
        end

        # Soil on a day past what is known: from its fill on an earlier day it slides to what is usual.
        def settling(date, fill, since)
          usual = typical.fill(date)
          fill = usual + ((fill - usual) * Math.exp(-(date - since).to_i / 12.0))
          Ground.new(fill:, kind: usual(date).tmean < -1 ? :frozen : Soil.kind(fill), standing: :usual)
        end

        # Days of a span on which the soil's class is another than the day before, as far as is known and then as usual.
        def soil_changes(from, last)
          @soil_changes ||= {}
          @soil_changes[[from, last]] ||=
            (from..last).reject { |date| ground(date).kind == ground(date - 1).kind }.freeze
        end

        # A plant's calendar here, as people saw it; the same for everyone who asks.
        def calendar(plant) = (@calendars ||= {})[plant.key] ||= Phenology.new(plant, self)

        # The soil's class that is usual on a day of the year (Usual#soil).
        def usual_soil(date) = typical.soil(date)

        # Days of a season-year on which the usual soil changes its class.
        def soil_turns(year)
          @soil_turns ||= {}
          @soil_turns[year.start] ||= ((year.start + 1)..year.finish).reject do |date|
            usual_soil(date) == usual_soil(date - 1)
          end
        end

        # What the feed knows of a date, hour by hour: [Hour], none where only the day is known.
        def hourly(date) = @feed.hourly(date)

        # The hours ahead, for all kinds of work.
        def hours = @hours ||= Hours.new(self).all

        # A kind of work over the hours ahead, under the limits of labels (see Limits#under).
        def fit(key, labels = nil)
          fit_under(Knowledge.shipped.fits.fetch(key).under(labels&.[](key)))
        end

        # Work under some Limits over the hours ahead.
        def fit_under(limits) = (@fits ||= {})[limits] ||= Fit.new(self, limits)

        # Fit days of past years.
        def workable = @workable ||= Workable.new(self)

        # The day's water (Soil::Flow) of the last weeks and the forecast; nil for other days.
        def flow(date) = date.between?(history.last, horizon) ? bucket[date.jd - @base].last : nil

        # Means of a calendar day over the years behind us.
        def usual(date) = typical.day(date)

        # Is a usual day warm enough for what is in leaf to grow?
        def grows?(date) = ((@grows ||= {})[date.yday] ||= usual(date).tmean >= GROWS ? :yes : :no) == :yes

        # Futures: the days from a date on as they are known, and where they are not, as each past year had them.
        # [[Day]]
        def futures(from, count) = history.map { |first| spell(from, count, first) }

        # The same in the soil's class: [[class]].
        def soil_futures(from, count) = history.map { |first| soil_spell(from, count, first) }

        # One past year: its days, and its soils.
        def past_days(first) = spell(first, length(first), first)
        def past_soils(first) = soil_spell(first, length(first), first)

        # The past years' Spotters, once for all marks.
        def past = @past ||= history.map { |first| spotter(past_days(first), past_soils(first)) }

        # A Spotter of marks in some days ([Day]) with the soil of each; seen: {anchor key => day} goes before.
        def spotter(days, soils, seen: {})
          Spotter.new(days, soils, dry_middle: typical.dry_middle, rains: climate.rains, seen:)
        end

        # Days by which what belongs to "spring" or "autumn" comes later here than at the station; none without a
        # season.
        def shift(season)
          return 0 unless station && season

          days = Hopkins.days(station, place).round
          season == "spring" ? days : -days
        end

        def station = @station ||= feed.station
        def place = Station.new(latitude:, longitude:, elevation:)

        # Whose weather this is.
        def origin
          regional = history.count { |first| (day = known(first + 180)) && day.standing == :regional }
          Origin.new(station:, measured_years: YEARS - regional, regional_years: regional, shift: shift("spring"))
        end

        # [rising, setting] in hours on the clock, a setting after midnight past 24; nil where the sun does not cross
        # the horizon.
        # Degrees of the sun above the horizon at an hour of the clock; nil where it does not rise and set that day.
        def sun_height(date, hour)
          rises, sets = sun(date)
          rises && sets && Sun.height(date, latitude, hour + 0.5 - ((rises + sets) / 2))
        end

        # Rising and setting on a day, hours of the clock; nils where it does neither.
        def sun(date)
          rises, sets = Sun.rise_and_set(date, latitude, longitude || 0.0).map { |time| time && clock.hours(time) }
          [rises, rises && sets && sets < rises ? sets + 24 : sets]
        end

        # What is left of a feed where only what it said goes along.
        Said = Value.define(:station) do
          def hourly(_date) = []
        end

        # The same with all that its feed has to say, so that it can be handed to another process.
        def packed
          [year, typical, climate, bucket, hours]
          @feed = Said.new(station:)
          self
        end

        private

        def known(date) = at(date.jd)
        def at(julian) = julian < @base ? nil : @list[julian - @base]

        def read_history
          first = history.last
          @base = first.jd
          first_of_year = Year.start_of(today, latitude)
          @list = Array.new(today.jd + FORECAST - @base)
          feed.daily(first..(today + FORECAST - 1)).each do |day|
            # Broad values make up past years, never this one: what this year did here is not known.
            next if day.standing == :regional && day.date > first_of_year - 1

            ahead = day.date > today
            @list[day.date.jd - @base] = ahead ? day.with(standing: :forecast) : day
          end
          raise BadInput.new("There is no weather to work with.", field: :feed) if @list.none?
        end

        def length(first) = ((first >> 12) - first).to_i

        # `count` days from a date on; past what is known, those of the season-year that began on `past`.
        def spell(from, count, past)
          along(from, count, past) { |jd, twin| at(jd) || at(twin) || usual(Date.jd(jd)) }
        end

        def soil_spell(from, count, past)
          along(from, count, past) do |jd, twin|
            julian = at(jd) ? jd : twin
            julian >= @base && bucket[julian - @base] ? bucket[julian - @base].first.kind : usual_soil(Date.jd(jd))
          end
        end

        # Julian days from a date on, each with the day of a past season-year that is as far from its start; a spell
        # that runs on into the next year begins that again.
        def along(from, count, past)
          start, past = Year.start_of(from, latitude).jd, past.jd
          (from.jd...(from.jd + count)).map { |jd| yield jd, past + ((jd - start) % 365) }
        end

        # Of each day since the history began, what the soil was and where its water went.
        def bucket
          @bucket ||= begin
            soil = Soil.new(texture:, latitude:, elevation:, poorly_drained: @poorly_drained)
            (history.last..horizon).map do |date|
              day = day(date)
              kind = soil.pass(day, felt: seen.soils[date])
              [Ground.new(fill: soil.fill, kind:, standing: day.standing), date > today - FLOWS ? soil.flow : nil]
            end
          end
        end
      end
    end
  end
end
