# frozen_string_literal: true

module Thistle
  module Formats
    # The Global Historical Climatology Network's daily files (published): a station's .dly, a month of an element a
    # line in fixed columns, and rows of station, day, element and value. Values are tenths; what failed their checks
    # stays out.
    module GhcnDaily
      LINE = /\A[A-Z]{2}[A-Z0-9_-]{9}\d{4}(?:0[1-9]|1[0-2])[A-Z0-9]{4}[ \d-]{5}/
      ROW = /\A"?[A-Z]{2}[A-Z0-9_-]{9}"?,"?(\d{8})"?,"?[A-Z0-9]{4}"?,/
      # element => [column, how many of its unit are one in the file]
      ELEMENTS = { "TMIN" => ["tmin (°C)", 0.1], "TMAX" => ["tmax (°C)", 0.1], "TAVG" => ["temperature (°C)", 0.1],
                   "PRCP" => ["rain (mm)", 0.1], "AWND" => ["wind (m/s)", 0.1], "WSFG" => ["gust (m/s)", 0.1],
                   "RHAV" => ["humidity (%)", 1.0] }.freeze
      MISSING = -9999

      module_function

      def here?(text) = text.match?(LINE) || text.match?(ROW)

      # [headers, [{header => text}]]; raises BadInput (field :file) where several stations are in it.
      def read(text)
        values, stations = Hash.new { |days, date| days[date] = {} }, {}
        each_value(text) do |station, date, element, value|
          stations[station] = true
          column, unit = ELEMENTS[element]
          values[date][column] = (value * unit).round(1).to_s if column
        end
        one_station(stations.keys)
        headers = ["date", *ELEMENTS.values.map(&:first).select { |one| values.any? { |_, row| row[one] } }]
        [headers, values.sort.map { |date, row| headers.to_h { |one| [one, row[one].to_s] }.merge("date" => date) }]
      end

      def one_station(stations)
        return if stations.size == 1

        Reader.refuse("It holds #{stations.size} stations (#{stations.first(3).join(", ")}): bring a file of one.")
      end

      # Yields station, "2026-05-12", element, value of all that is there and passed.
      def each_value(text, &)
        text.each_line(chomp: true) { |line| line.match?(LINE) ? month(line, &) : row(line, &) }
      end

      def month(line)
        station, year, at, element = line[0, 11], line[11, 4], line[15, 2], line[17, 4]
        (1..31).each do |day|
          value, _, failed, = line[21 + ((day - 1) * 8), 8]&.then { |cell| [cell[0, 5].to_i, cell[5], cell[6]] }
          next if value.nil? || value == MISSING || !failed.to_s.strip.empty?
          next unless Date.valid_date?(year.to_i, at.to_i, day)

          yield station, format("%s-%s-%02d", year, at, day), element, value
        end
      end

      def row(line)
        station, day, element, value, _, failed = line.delete('"').split(",")
        return unless day.to_s.match?(/\A\d{8}\z/) && value.to_s.match?(/\A-?\d+\z/) && failed.to_s.strip.empty?

        yield station, "#{day[0, 4]}-#{day[4, 2]}-#{day[6, 2]}", element, value.to_i unless value.to_i == MISSING
      end
      private_class_method :one_station, :each_value, :month, :row
    end
  end
end
