# frozen_string_literal: true

require "csv"

module Thistle
  module Formats
    # A table as text (RFC 4180). Every cell is inert (Inert): no spreadsheet takes it for a formula.
    module CsvFile
      module_function

      # columns: names; rows: arrays of cells in their order, read one at a time. Answers `out`.
      def write(columns, rows, out = +"", col_sep: ",")
        csv = CSV.new(out, row_sep: "\r\n", col_sep:)
        csv << columns
        rows.each { |row| csv << row.map { |cell| Inert.write(cell) } }
        out
      end
    end
  end
end
