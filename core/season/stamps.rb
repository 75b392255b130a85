# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Reads the dates and times of a table's rows, on the clock that they were written by.
      class Stamps
        ZONES = { "local" => "the clock here, with daylight saving", "standard" => "standard time all year",
                  "utc" => "UTC" }.freeze
        STAMP = /\A(\d{4})-(\d\d?)-(\d\d?)(?:[T ](\d\d?):?(\d\d)?(?::\d\d(?:\.\d+)?)?)?\s*(Z|[+-]\d\d:?\d\d)?\z/i
        SLASHED = %r{\A(\d{1,2})[/.](\d{1,2})[/.](\d{4})(?:[T ]+(\d\d?):?(\d\d)?(?::\d\d)?\s*([ap]m)?)?\z}i
        YEAR_FIRST = %r{\A(\d{4})/(\d{1,2})/(\d{1,2})(.*)\z}

        # Hours so far that the clock skips when daylight saving begins.
        attr_reader :skipped

        # time, date, hour: headers of the columns that hold them, nil for none.
        def initialize(rows, time, date, hour, clock:, zone:)
          @rows, @columns, @clock, @zone, @skipped = rows, [time, date, hour].compact, clock, zone, 0
        end

        # [UTC Time or nil where no time of day is given, date] of a row; nil for what is no date.
        def read(row)
          text = row.values_at(*@columns).compact.map(&:strip).reject(&:empty?).uniq.join(" ")
          year, month, day, hour, minute, zone = parts(text.sub(YEAR_FIRST, '\1-\2-\3\4'))
          return unless year && Date.valid_date?(year, month, day)

          date = Date.new(year, month, day)
          return [nil, date] unless hour
          return if hour > 24 || minute > 59

          date, hour = date + 1, 0 if hour == 24
          at = instant(date, hour, minute, zone)
          [at, @clock.date(at)]
        end

        # Which of day and month comes first, told from all the dates of the file.
        def order
          @order ||= begin
            pairs = @rows.filter_map do |row|
              SLASHED.match(row[@columns.first].to_s.strip)&.then { |m| [m[1].to_i, m[2].to_i] }
            end
            first, second = pairs.transpose.map(&:max)
            if first.nil? || first > 12 then :day_first
            else second > 12 ? :month_first : :unclear
            end
          end
        end

        private

        def parts(text)
          if (m = STAMP.match(text))
            [m[1].to_i, m[2].to_i, m[3].to_i, m[4]&.to_i, m[5].to_i, m[6]]
          elsif (m = SLASHED.match(text))
            day, month = order == :month_first ? [m[2], m[1]] : [m[1], m[2]]
            [m[3].to_i, month.to_i, day.to_i, hour_of(m[4], m[6]), m[5].to_i, nil]
          end
        end

        def hour_of(text, half)
          return text&.to_i unless half

          (text.to_i % 12) + (half.downcase == "pm" ? 12 : 0)
        end

        def instant(date, hour, minute, zone)
          plain = Time.utc(date.year, date.month, date.day, hour, minute)
          return plain - offset(zone) if zone
          return plain if @zone == "utc"
          return plain - @clock.standard_offset(date) if @zone == "standard"

          on_the_clock(date, hour, minute, plain)
        end

        # An hour that comes twice is the first one the first time; an hour that the clock skips is the next.
        def on_the_clock(date, hour, minute, plain)
          steady = @clock.steady_offset(date)
          return plain - steady if steady

          at = @clock.utc(date, hour, minute)
          unless at
            @skipped += 1
            return plain - @clock.standard_offset(date)
          end
          @taken ||= {}
          at += 3600 if @taken[at] && @clock.twice?(date, hour)
          @taken[at] = true
          at
        end

        def offset(zone)
          return 0 if zone.upcase == "Z"

          sign = zone.start_with?("-") ? -1 : 1
          sign * ((zone[1, 2].to_i * 3600) + (zone[-2, 2].to_i * 60))
        end
      end
    end
  end
end
