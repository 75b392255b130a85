# frozen_string_literal: true

module Thistle
  module Formats
    # What open weather services write otherwise than a station does: a day in three columns or as the day of the year,
    # a date without marks, numbers that stand for nothing measured.
    module WeatherLayouts
      DAY = { year: %w[year yyyy jahr], month: %w[month mo mm], day: %w[day dy dd], yearday: %w[doy yday] }.freeze
      BARE = /\A(\d{4})(\d\d)(\d\d)(?:(\d\d)(\d\d)?)?\z/ # 20260512, 2026051213
      NOTHING = /\A-9{3,4}(?:\.[09])?\z/ # -99 is 9.9 below in tenths of a degree; where it is none, no gauge takes it

      module_function

      # [headers, rows] with dates in one column, as a station writes them, and nothing where nothing was measured.
      def plain(headers, rows)
        at = parts(headers)
        rows.each { |row| row.each { |header, cell| row[header] = "" if cell&.match?(NOTHING) } }
        headers.select { |header| bare?(rows, header) }.each do |header|
          rows.each { |row| row[header] = marked(row[header]) }
        end
        rows.each { |row| row["date"] = dated(row, at) } if at
        return [["date", *(headers - at.values)], rows] if at

        stamped(headers, rows)
      end

      # A column "time" that holds days is one of dates.
      def stamped(headers, rows)
        time = headers.find { |header| header.casecmp?("time") }
        return [headers, rows] unless time && rows.first && rows.first[time].to_s.match?(/\A\d{4}-\d\d-\d\d/)

        [headers.map { |header| header == time ? "datetime" : header },
         rows.each { |row| row["datetime"] = row.delete(time) }]
      end

      # {year:, month:, day:} or {year:, yearday:} and their columns; nil where a date stands in one.
      def parts(headers)
        return if headers.any? { |header| header.casecmp?("date") }

        found = DAY.transform_values { |names| headers.find { |one| names.include?(one.downcase.strip) } }.compact
        return unless found[:year]

        found if found.key?(:yearday) || (found.key?(:month) && found.key?(:day))
      end

      # Does a column hold dates without marks, and nothing else? A number of eight digits among others is none.
      def bare?(rows, header)
        cells = rows.filter_map { |row| row[header] unless row[header].to_s.empty? }
        cells.any? && cells.all? { |cell| day?(*cell.match(BARE)&.captures&.first(3)) }
      end

      def day?(year = nil, month = nil, day = nil)
        !year.nil? && year.to_i.between?(1800, 2200) && Date.valid_date?(year.to_i, month.to_i, day.to_i)
      end

      def marked(cell)
        return "" if cell.to_s.empty?

        year, month, day, hour, minute = cell.match(BARE).captures
        hour ? "#{year}-#{month}-#{day} #{hour}:#{minute || "00"}" : "#{year}-#{month}-#{day}"
      end

      def dated(row, at)
        year, month, day, yearday = %i[year month day yearday].map { |part| row[at[part]].to_s.to_i }
        return Date.valid_ordinal?(year, yearday) ? Date.ordinal(year, yearday).iso8601 : "" if at[:yearday]

        Date.valid_date?(year, month, day) ? Date.new(year, month, day).iso8601 : ""
      end

      # Is a column's name one of a day or a part of one?
      def dates?(header)
        DAY.values.flatten.include?(header.to_s.downcase.strip) ||
          %i[time date hour].include?(Core::Season::Gauge.named(header)&.key)
      end

      private_class_method :parts, :bare?, :day?, :marked, :dated, :stamped
    end
  end
end
