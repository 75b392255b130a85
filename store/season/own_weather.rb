# frozen_string_literal: true

module Thistle
  module Store
    # Reading: the feed of a property's own station: its files' days and hours, and before the first of them the broad
    # values of the region, which say that they are.
    class OwnWeather
      # SQLite's day number is a Julian day from noon: quicker to read than ten years of dates.
      JULIAN = Sequel.lit("CAST(julianday(date) + 0.5 AS INTEGER)").as(:jd)

      # broad: the feed that stands in for years without a station.
      def initialize(property, broad)
        @property, @broad = property, broad
      end

      def daily(range)
        own = rows(range)
        first = own.first&.date || (range.last + 1)
        @broad.daily(range.first...[first, range.last + 1].min) + own
      end

      # The hours on the clock of a date; none where only the day is known.
      def hourly(date)
        clock = @property.clock
        from = clock.utc(date, 0) || clock.utc(date, 1)
        rows = Sequel::Model.db[:weather_hours].where(property_id: @property.id, at: from...(from + 90_000))
                            .order(:at, :file_id)
                            .select(:at, *WeatherFile::HOUR).all
        last = rows.to_h { |row| [row[:at], row] }.values
        last.map { |row| [clock.local(row[:at]), row] }.select { |time, _| time.to_date == date }
            .group_by { |time, _| time.hour }
            .map { |at, same| Core::Season::Hour.new(at:, standing: :measured, **same.last.last.except(:at)) }
      end

      def station = @property.station

      private

      # Later files go before earlier ones.
      def rows(range)
        found = Sequel::Model.db[:weather_days].where(property_id: @property.id, date: range).order(:date, :file_id)
                             .select(JULIAN, *WeatherFile::DAY).all
        found.to_h { |row| [row[:jd], row] }
             .map { |jd, row| Core::Season::Day.new(**row.except(:jd), date: Date.jd(jd), standing: :measured) }
      end
    end
  end
end
