# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A station's table of weather as days and hours: columns mapped, units read, and everything said that was odd:
      # rows that could not be read, repeats, spikes, hours that the clock skips, gaps.
      #
      #   file = WeatherFile.new(headers, rows, mapping, clock:)   # mapping: {header => [gauge key, unit]}
      #   file.days, file.hours, file.report
      class WeatherFile
        BOTH_WAYS = "The dates could be read as day first or as month first: write them as 2026-05-12."
        # at: UTC Time of an hour.
        Record = Value.define(:at, :date, :values)
        Report = Value.define(:rows, :days, :hours, :first, :last, :gaps, :repeats, :spikes, :unread, :skipped_hours,
                              :notes)
        ENOUGH = 18 # hours that make a day
        JUMP = 20.0 # °C from one hour to the next and back: a spike
        MANY = 20 # things that are listed one by one

        # {header => [gauge key, unit, how]} that a file's headers and first rows suggest.
        def self.guess(headers, rows)
          found = headers.to_h { |header| [header, Gauge.named(header)] }
          found = once_each(found)
          numbers = ->(header) { rows.first(5000).filter_map { |row| Decimal.read(row[header]) } }
          warm = Gauge.warm_unit(found, numbers)
          found.to_h do |header, gauge|
            next [header, nil] unless gauge

            unit = gauge.units.empty? ? [nil, nil] : gauge.unit(header, numbers[header], warm_unit: warm)
            [header, [gauge.key, *unit]]
          end
        end

        # A gauge named twice counts once; a "date" column with a time of day in it is both.
        def self.once_each(found)
          seen = []
          found.transform_values { |gauge| gauge if gauge && !seen.include?(gauge.key) && (seen << gauge.key) }
        end
        private_class_method :once_each

        # clock: the place's; zone: one of Stamps::ZONES.
        def initialize(headers, rows, mapping, clock:, zone: "local")
          @rows, @clock = rows, clock
          @columns = mapping.filter_map do |header, (key, unit)|
            [header, Gauge::BY_KEY.fetch(key.to_sym), unit] if key && headers.include?(header)
          end
          @stamps = Stamps.new(rows, *%i[time date hour].map { |key| column(key) }, clock:, zone:)
          @unread, @spikes, @notes, @repeats = [], Hash.new(0), [], 0
        end

        def days = @days ||= (daily? ? from_days : from_hours).sort_by(&:date).freeze
        def hours = @hours ||= (daily? ? [] : hourly).freeze

        # The Report: rows read, days and hours made of them, gaps, repeats, spikes, and what could not be read.
        def report
          dates = days.map(&:date)
          Report.new(rows: @rows.size, days: dates.size, hours: hours.size, first: dates.first, last: dates.last,
                     gaps: gaps(dates),
                     repeats: @repeats, spikes: @spikes.dup, unread: @unread, skipped_hours: @stamps.skipped,
                     notes: @notes)
        end

        # What keeps it from being taken, in words; nil when nothing does.
        def fault
          keys = @columns.map { |_, gauge, _| gauge.key }
          return "No column is a date." unless keys.intersect?(%i[time date])
          unless keys.include?(:temperature) || (%i[tmin tmax] - keys).empty?
            return "No column is a temperature: lowest and highest, or one of the hour."
          end
          return BOTH_WAYS if @stamps.order == :unclear

          "No row could be read: #{@unread.first&.last || "no dates"}." if days.empty?
        end

        private

        def daily? = records.none?(&:at)
        def column(key) = @columns.find { |_, gauge, _| gauge.key == key }&.first

        def records
          @records ||= @rows.each_with_index.filter_map do |row, n|
            at, date = @stamps.read(row)
            next unread(n, row) unless date

            Record.new(at:, date:, values: values(row))
          end
        end

        def unread(at, row)
          @unread << [at + 2, row[column(:time) || column(:date)].to_s[0, 40]] if @unread.size < MANY
          nil
        end

        def values(row)
          @columns.each_with_object({}) do |(header, gauge, unit), values|
            next if gauge.units.empty?

            value = Decimal.read(row[header])&.then { |one| gauge.read(one, unit || gauge.units.keys.first) } or next
            fits = gauge.plausible.cover?(value)
            fits ? values.store(gauge.key, value) : @spikes[gauge.label] += 1
          end
        end

        def from_days
          by_date = records.group_by(&:date)
          @repeats += by_date.sum { |_, same| same.size - 1 }
          by_date.filter_map do |date, same|
            v = same.map(&:values).reduce(:merge)
            low, high = v[:tmin] || v[:temperature], v[:tmax] || v[:temperature]
            next note_day(date, "no temperature") unless low && high
            next note_day(date, "its low is above its high") if low > high

            day(date, low, high, v)
          end
        end

        def day(date, low, high, v)
          humidity = v[:humidity] || (v[:dew_point] && Air.humidity((low + high) / 2, v[:dew_point]))
          Day.new(date:, tmin: low.round(2), tmax: high.round(2), rain: v[:rain]&.round(2), wind: v[:wind]&.round(2),
                  humidity: humidity&.round(1),
                  gust: v[:gust]&.round(2), radiation: v[:radiation]&.round(2), standing: :measured)
        end

        def note_day(date, why)
          @notes << "#{date.iso8601}: #{why}; left out" if @notes.size < MANY
          nil
        end

        # Records of an hour folded into one.
        def hourly
          @hourly ||= begin
            by_time = records.select(&:at).group_by(&:at)
            @repeats += by_time.sum { |_, same| same.size - 1 }
            once = calmed(by_time.values.map(&:last).sort_by(&:at))
            uncounted(once).group_by { |record| record.at - (record.at.to_i % 3600) }.map do |at, same|
              Record.new(at:, date: @clock.date(at), values: fold(same))
            end
          end
        end

        # Temperatures that leap up and back from one record to the next are a sensor's, not the air's.
        def calmed(list)
          list.each_cons(3) do |a, b, c|
            before, now, after = [a, b, c].map { |record| record.values[:temperature] }
            next unless before && now && after && (now - before).abs > JUMP && (now - after).abs > JUMP &&
                        (before - after).abs < JUMP

            b.values.delete(:temperature)
            @spikes[Gauge::BY_KEY[:temperature].label] += 1
          end
          list
        end

        # A gauge that counts up through the day is turned into what fell since the record before.
        def uncounted(list)
          return list unless counter?(list)

          @notes << "The rain column counts up through the day: what fell was taken from the differences"
          before = nil
          list.each do |record|
            total = record.values[:rain] or next
            record.values[:rain] = before && before.date == record.date ? [total - before.total, 0.0].max : total
            before = Counted.new(record.date, total)
          end
        end
        Counted = Struct.new(:date, :total)

        def counter?(list)
          days = list.select { |record| record.values[:rain]&.positive? }.group_by(&:date)
                     .values.select { |same| same.size >= 6 }
          days.size >= 2 && days.all? do |same|
            same.map { |record| record.values[:rain] }.each_cons(2).all? { |a, b| b >= a - 0.01 }
          end
        end

        def fold(records)
          return records.first.values if records.size == 1

          records.flat_map { |record| record.values.keys }.uniq.to_h do |key|
            numbers = records.filter_map { |record| record.values[key] }
            value = folded(numbers).fetch(Gauge::BY_KEY[key].folds)
            [key, value]
          end
        end

        def folded(numbers)
          { sum: numbers.sum, mean: numbers.sum / numbers.size, highest: numbers.max, lowest: numbers.min }
        end

        def from_hours
          hourly.group_by(&:date).filter_map do |date, same|
            next note_day(date, "#{same.size} of 24 hours") if same.size < ENOUGH

            low, high = extremes(same)
            next note_day(date, "no temperature") unless low && high

            whole = fold(same)
            whole = whole.except(:rain) if same.count { |record| record.values[:rain] } < ENOUGH
            day(date, low, high, whole)
          end
        end

        def extremes(records)
          of = ->(key) { records.filter_map { |record| record.values[key] } }
          warm = of[:temperature]
          [of[:tmin].min || warm.min, of[:tmax].max || warm.max]
        end

        # [[first, last]] of days that are missing.
        def gaps(dates)
          dates.each_cons(2).filter_map { |a, b| [a + 1, b - 1] if b > a + 1 }
        end
      end
    end
  end
end
