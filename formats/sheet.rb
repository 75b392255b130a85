# frozen_string_literal: true

require "roo"
require "tempfile"

module Thistle
  module Formats
    # A spreadsheet, XLSX or ODS: its sheets that say where things are, read as any table, then those of past work,
    # checks and plantings. What it unpacks
    # to is limited as a zip's is.
    module Sheet
      MOST_ROWS, MOST_COLUMNS = 150_000, 300
      REPEATED = 20_000 # rows that an ODS says once and means so often
      TABLE = "urn:oasis:names:tc:opendocument:xmlns:table:1.0"
      OPEN_DOCUMENT = "application/vnd.oasis.opendocument.spreadsheet"

      module_function

      # Is a zip's bytes a spreadsheet: :xlsx, :ods, or nil?
      def kind(bytes)
        zip = Zip::File.open_buffer(StringIO.new(bytes))
        return :xlsx if zip.find_entry("xl/workbook.xml")

        :ods if zip.find_entry("mimetype")&.get_input_stream&.read(OPEN_DOCUMENT.size) == OPEN_DOCUMENT
      rescue StandardError # a spoilt directory trips rubyzip in many ways
        nil
      end

      # [Feature], one a row. Raises BadInput for a book that cannot be read, or has no sheet with places.
      def read(bytes)
        Archive.unpack(bytes)
        sheets = sheets_of(bytes, kind(bytes))
        placed, others = sheets.select(&:any?).map { |rows| headed(rows) }.partition { |heads, _| Table.places?(heads) }
        found = placed.map { |heads, rows| Table.of_rows(heads, rows) } + others.filter_map { |sheet| records(*sheet) }
        return found.flatten(1) if found.any?

        Reader.refuse("No sheet of the book has columns of latitude and longitude, well-known text, UTM or a grid " \
                      "reference. The first has: #{sheets.first.to_a.first.to_a.compact.first(8).join(", ")}.")
      end

      # [[[text]]]: the rows of each sheet, cells as people would write them.
      def sheets_of(bytes, kind)
        Tempfile.create(["sheet", ".#{kind}"], binmode: true) do |file|
          file.write(kind == :ods ? unrolled(bytes) : bytes)
          file.flush
          book = Roo::Spreadsheet.open(file.path, extension: kind, disable_html_wrapper: true)
          book.sheets.map { |name| rows_of(book, name) }
        end
      rescue Zip::Error, Roo::Error, Nokogiri::XML::SyntaxError, ArgumentError, NoMethodError, TypeError, KeyError
        Reader.refuse("The spreadsheet cannot be read. Save it anew as XLSX or as CSV.")
      end

      def rows_of(book, name)
        sheet = book.sheet(name)
        last, columns = sheet.last_row.to_i, [sheet.last_column.to_i, MOST_COLUMNS].min
        Reader.refuse("A sheet holds more than #{MOST_ROWS} rows; split it.") if last > MOST_ROWS
        (sheet.first_row.to_i..last).map do |row|
          (1..columns).map { |column| row.zero? ? nil : said(sheet, row, column) }
        end
      end

      # A cell as text; a percentage keeps its sign.
      def said(sheet, row, column)
        value = sheet.cell(row, column)
        case value
        when nil then nil
        when DateTime, Time then value.strftime(value.hour.zero? && value.min.zero? ? "%Y-%m-%d" : "%Y-%m-%dT%H:%M")
        when Date then value.iso8601
        when Float then number(value, percent?(sheet, row, column))
        else value.to_s.strip
        end
      end

      def number(value, percent)
        return "#{number((value * 100).round(6), false)}%" if percent

        value == value.to_i && value.abs < 1e15 ? value.to_i.to_s : value.to_s
      end

      def percent?(sheet, row, column)
        return true if sheet.celltype(row, column) == :percentage

        sheet.respond_to?(:excelx_format) && sheet.excelx_format(row, column).to_s.include?("%")
      end

      # [Feature] of past work, checks or plantings; nil of a sheet that holds none.
      def records(heads, rows)
        kind = Core::Survey::RecordColumns.kind_of(heads) and Table.records(kind, heads, rows)
      end

      # [headers, the rest]: the headings are the first row that names a place, or what a record is made of, else the
      # first that says anything.
      def headed(rows)
        first = rows.first(20).index do |row|
          Table.places?(row.compact) || Core::Survey::RecordColumns.kind_of(row.compact)
        end
        first ||= rows.index(&:any?) || 0
        [rows[first].to_a.map { |cell| cell.to_s.strip }, rows.drop(first + 1)]
      end

      # An ODS says rows that are alike once and how often; written out here, since the reader takes them for one.
      def unrolled(bytes)
        Zip::OutputStream.write_buffer do |out|
          Zip::File.open_buffer(StringIO.new(bytes)).each do |entry|
            next if entry.directory?

            text = entry.get_input_stream.read
            out.put_next_entry(entry.name)
            out.write(entry.name == "content.xml" ? written_out(text) : text)
          end
        end.string
      end

      def written_out(xml)
        document, left = Nokogiri::XML(xml), REPEATED
        document.xpath("//t:table-row[@t:number-rows-repeated]", "t" => TABLE).each do |row|
          times = row.attribute_with_ns("number-rows-repeated", TABLE).value.to_i
          row.remove_attribute("number-rows-repeated")
          next if row.text.strip.empty? || times < 2

          left -= times
          Reader.refuse("The spreadsheet repeats its rows more than #{REPEATED} times.") if left.negative?
          (times - 1).times { row.add_next_sibling(row.dup) }
        end
        document.to_xml
      end

      private_class_method :records, :sheets_of, :rows_of, :said, :number, :percent?, :headed, :unrolled, :written_out
    end
  end
end
