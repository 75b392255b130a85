# frozen_string_literal: true

require "caxlsx"

module Thistle
  module Formats
    # Tables as one workbook (Office Open XML): a sheet each, headings that stay in sight, days as days, numbers as
    # numbers. No text is taken for a formula.
    module Workbook
      MEDIA = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
      TITLE = 31 # letters that a sheet's name may have
      MOST_ROWS = 1_048_575

      module_function

      # sheets: [[title, headings, rows of cells]]. Answers the bytes.
      def write(sheets)
        package = Axlsx::Package.new
        day = package.workbook.styles.add_style(format_code: "yyyy-mm-dd")
        head = package.workbook.styles.add_style(b: true)
        sheets.each do |title, headings, rows|
          package.workbook.add_worksheet(name: title[0, TITLE]) do |sheet|
            sheet.add_row(headings, style: head)
            rows.each { |row| add(sheet, row, day) }
            sheet.sheet_view.pane { |pane| frozen(pane) }
          end
        end
        package.to_stream.read
      end

      def add(sheet, row, day)
        sheet.add_row(row.map { |cell| cell.is_a?(String) ? Inert.write(cell) : cell },
                      types: row.map { |cell| type(cell) }, style: row.map { |cell| cell.is_a?(Date) ? day : nil },
                      escape_formulas: true)
      end

      def type(cell)
        case cell
        when Date then :date
        when Integer then :integer
        when Float then :float
        else :string
        end
      end

      def frozen(pane)
        pane.top_left_cell, pane.state, pane.y_split, pane.active_pane = "A2", :frozen, 1, :bottom_left
      end

      private_class_method :add, :type, :frozen
    end
  end
end
