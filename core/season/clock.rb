# frozen_string_literal: true

require "tzinfo"

module Thistle
  module Core
    module Season
      # The clock that people at a place go by, daylight saving included.
      class Clock
        attr_reader :name

        # name: of the tz database, or nil: then whole hours by longitude, without daylight saving.
        def initialize(name, longitude: 0.0)
          @name = name || self.class.by_longitude(longitude || 0.0)
          @zone = TZInfo::Timezone.get(@name)
        end

        def self.known?(name) = TZInfo::Timezone.all_identifiers.include?(name)

        # The sign in these names runs the other way: Etc/GMT+6 is six hours behind.
        def self.by_longitude(longitude)
          hours = (longitude / 15.0).round
          hours.zero? ? "Etc/GMT" : format("Etc/GMT%+d", -hours)
        end

        # A UTC Time on this clock: a Time with its offset.
        def local(utc) = @zone.utc_to_local(utc)

        # Hours since midnight of a UTC Time, 0..24, on the clock.
        def hours(utc) = local(utc).then { |time| time.hour + (time.min / 60.0) }

        # The UTC Time of an hour of a date; nil where the clock skips it. An hour that comes twice is the first of the
        # two.
        def utc(date, hour, minute = 0)
          @zone.local_to_utc(Time.utc(date.year, date.month, date.day, hour, minute), &:first)
        rescue TZInfo::PeriodNotFound
          nil
        end

        # Seconds ahead of UTC all through a date; nil on one when the clock is changed.
        def steady_offset(date)
          @steady ||= {}
          @steady.fetch(date) do
            noon = Time.utc(date.year, date.month, date.day, 12)
            ends = [-129_600, 129_600].map { |seconds| @zone.period_for_utc(noon + seconds).observed_utc_offset }
            @steady[date] = ends.uniq.size == 1 ? ends.first : nil
          end
        end

        # The date on this clock of a UTC Time.
        def date(utc)
          day = Date.new(utc.year, utc.month, utc.day)
          offset = steady_offset(day)
          offset ? day + ((utc.hour * 3600) + (utc.min * 60) + offset).div(86_400) : local(utc).to_date
        end

        # Seconds ahead of UTC without daylight saving.
        def standard_offset(date) = @zone.period_for_utc(Time.utc(date.year, date.month, date.day)).base_utc_offset

        # Does the clock show that hour twice on that date?
        def twice?(date, hour) = @zone.periods_for_local(Time.utc(date.year, date.month, date.day, hour)).size > 1
      end
    end
  end
end
