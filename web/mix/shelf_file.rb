# frozen_string_literal: true

require "csv"

module Thistle
  module Web
    module Mix
      # A shelf as a table (CSV, RFC 4180): a product a row, columns named as the fields of its form, in the units of
      # who writes it. Taken whole or not at all.
      class ShelfFile
        COLUMNS = Forms::Product::Fields.schema.key_map.map { |key| key.name.to_s } - %w[lock_version mistyped]
        MOST, BYTES = 500, 1024 * 1024

        def self.write(products, units, today)
          forms = products.lazy.map { |product| Forms::Product.of(product, units, today) }
          Formats::CsvFile.write(COLUMNS, forms.map { |form| COLUMNS.map { |name| form[name] } })
        end

        def initialize(bytes, units, today)
          @bytes, @units, @today = bytes, units, today
        end

        # How many were put on the shelf. Raises BadInput (field :file) with the row and what is wrong with it.
        def take
          forms = table.map.with_index(2) { |row, line| [read(row), line] }
          refuse "holds no product." if forms.empty?
          Sequel::Model.db.transaction { forms.each { |form, line| form.store || refuse_row(form, line) } }
          forms.size
        end

        private

        def table
          refuse "is larger than a shelf." if @bytes.bytesize > BYTES
          rows = CSV.parse(Formats::Text.utf8(@bytes), headers: true, skip_blanks: true)
          refuse "needs the columns name and active1: it is no shelf." if (%w[name active1] - rows.headers).any?
          refuse "holds more than #{MOST} products." if rows.size > MOST
          rows
        rescue CSV::MalformedCSVError => e
          refuse "breaks off in line #{e.line_number}."
        end

        def read(row)
          cells = row.to_h.slice(*COLUMNS).transform_values { |cell| Formats::Inert.read(cell) }
          Forms::Product.new(cells.compact, units: @units, today: @today)
        end

        def refuse_row(form, line)
          field, words = form.errors.first
          refuse "was not taken: line #{line}, #{field} #{words}"
        end

        def refuse(what) = raise(Core::BadInput.new("The table #{what}", field: :file))
      end
    end
  end
end
