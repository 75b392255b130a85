# frozen_string_literal: true

require "csv"

module Thistle
  module Formats
    # A station's table as CSV (RFC 4180) in any of the usual separators and encodings: [headers, rows]. Lines of a
    # title above the headers are passed over. GHCN-Daily, and the layouts of open weather services, are read alike.
    module WeatherTable
      TITLE = 60 # lines above the headers, at most
      COLUMNS, HEADER = 200, 200 # columns; letters of a column's name

      module_function

      # [headers, [{header => text}]] of a table of weather. Raises BadInput (field :file) when it is none.
      def read(bytes)
        text = Text.utf8(bytes)
        Reader.refuse("There is nothing in it.") if text.strip.empty?
        Reader.refuse("That is not a table of text.") if text.include?("\u0000")
        return GhcnDaily.read(text) if GhcnDaily.here?(text)

        mark = Table.separator(text.each_line.max_by { |line| Table::SEPARATORS.map { |m| line.count(m) }.max }.to_s)
        rows = CSV.parse(text, headers: false, col_sep: mark, skip_blanks: true)
        WeatherLayouts.plain(*named(rows))
      rescue CSV::MalformedCSVError => e
        Reader.refuse("The table breaks off in line #{e.line_number}: a quote that does not close, or one too many.")
      end

      # The headers are the first row with as many cells as the most of the first rows, one of them of a date where any
      # is.
      def named(rows)
        at = header_row(rows)
        Reader.refuse("It has no columns: a date and a temperature are needed at least.") unless at
        headers = rows[at].each_with_index.map { |cell, n| cell.to_s.strip.empty? ? "column #{n + 1}" : cell.strip }
        check_headers(headers)
        seen = Hash.new(0)
        headers = headers.each_with_index.map { |one, n| (seen[one] += 1) > 1 ? "#{one} #{n + 1}" : one }
        [headers, rows.drop(at + 1).map { |row| headers.zip(row.map { |cell| cell.to_s.strip }).to_h }]
      end

      def header_row(rows)
        wide = rows.first(TITLE).map { |row| row.compact.size }.max
        fits = ->(row) { row.compact.size >= [wide - 1, 2].max }
        rows.first(TITLE).index { |row| fits[row] && row.any? { |cell| WeatherLayouts.dates?(cell) } } ||
          rows.first(TITLE).index(&fits)
      end

      def check_headers(headers)
        if headers.size > COLUMNS
          Reader.refuse("It has #{headers.size} columns; #{COLUMNS} are the most. Leave out what is no weather.")
        end
        return if headers.all? { |header| header.size <= HEADER }

        Reader.refuse("The name of a column is longer than #{HEADER} letters: that is no table of weather.")
      end
      private_class_method :named, :header_row, :check_headers
    end
  end
end
