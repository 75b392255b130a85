# frozen_string_literal: true

require "caxlsx"
require "support/web"

module Thistle
  # Spreadsheets as people keep them: written by another library (XLSX) or by hand (ODS), read and taken onto the map.
  class SheetTest < RackTest
    HEADS = ["Ref.", "Lat.", "Long.", "Plant (common)", "Date found", "No. of plants", "Cover %", "Comments"].freeze

    def book(*sheets)
      Axlsx::Package.new.tap do |package|
        sheets.each do |name, rows|
          package.workbook.add_worksheet(name:) do |sheet|
            rows.each do |row|
              sheet.add_row(row)
            end
          end
        end
      end.to_stream.read
    end

    # A title and an empty row stand above the headings; a date that is one, a rich text, a percentage.
    def test_a_workbook_comes_in
      package = Axlsx::Package.new
      package.workbook.add_worksheet(name: "2026") do |sheet|
        percent = sheet.styles.add_style(format_code: "0%")
        rich = Axlsx::RichText.new
        rich.add_run("garlic ", b: true)
        rich.add_run("mustard")
        sheet.add_row ["Our spring walk"]
        sheet.add_row []
        sheet.add_row HEADS
        sheet.add_row ["W1", 38.0031, -91.4033, rich, Date.new(2026, 5, 9), 12, 0.25, "=1+1"],
                      style: [nil, nil, nil, nil, nil, nil, percent, nil], escape_formulas: true
        sheet.add_row ["W2", "38°00'04\"N", "91°24'07\"W", "bush honeysuckle", "9 May 2026", 3, nil, nil]
      end
      one, two = Formats::Reader.read(package.to_stream.read)

      assert_equal [[-91.4033, 38.0031], "W1"], [one.geometry["coordinates"].map(&:to_f), one.name]
      assert_equal ["garlic mustard", "2026-05-09", "12", "25%"],
                   one.properties.values_at("Plant (common)", "Date found", "No. of plants", "Cover %")
      assert_in_delta(-91.401944, two.geometry["coordinates"].first.to_f, 1e-5)
    end

    # Rows that are alike are said once in an ODS, with how often; all of them are read.
    def test_an_open_document_loses_no_row
      cell = ->(text) { "<table:table-cell office:value-type='string'><text:p>#{text}</text:p></table:table-cell>" }
      row = ->(cells, times) {
        "<table:table-row table:number-rows-repeated='#{times}'>#{cells.map(&cell).join}</table:table-row>"
      }
      names = { office: "office", table: "table", text: "text" }
              .map { |short, name| "xmlns:#{short}='urn:oasis:names:tc:opendocument:xmlns:#{name}:1.0'" }.join(" ")
      rows = [row[%w[lat lon species], 1], row[["38.0", "-91.4", "tree of heaven"], 3], row[["", "", ""], 4000],
              row[["38.1", "-91.4", "kudzu"], 1]]
      content = "<?xml version='1.0'?><office:document-content #{names}><office:body><office:spreadsheet>" \
                "<table:table table:name='a'>#{rows.join}</table:table></office:spreadsheet></office:body>" \
                "</office:document-content>"
      manifest = "<manifest:manifest xmlns:manifest='urn:oasis:names:tc:opendocument:xmlns:manifest:1.0'/>"
      bytes = Testing.zip("mimetype" => Formats::Sheet::OPEN_DOCUMENT, "content.xml" => content,
                          "META-INF/manifest.xml" => manifest)
      read = Formats::Reader.read(bytes).map { |one| one.properties["species"] }

      assert_equal ["tree of heaven", "tree of heaven", "tree of heaven", "kudzu"], read
    end

    def test_places_in_utm_and_by_grid
      utm = Formats::Reader.read(book(["a", [%w[Easting Northing Zone what], [630_084, 4_833_438, "17T", "x"]]])).first
      grid = Formats::Reader.read("Grid ref,species\nTG 51409 13177,knotweed\nnonsense,kudzu\n")

      assert_in_delta 43.642567, utm.geometry["coordinates"].last, 1e-5
      assert_in_delta 52.658, grid.first.geometry["coordinates"].last, 1e-4
      assert_nil grid.last.geometry, "a place that cannot be read is none"
    end

    def test_books_that_cannot_be_read
      { book(["a", [%w[name colour], %w[x red]]]) => "No sheet of the book has columns",
        book(["a", []]) => "No sheet",
        Testing.zip("xl/workbook.xml" => "<broken") => "cannot be read" }.each do |bytes, words|
        assert_match words, assert_raises(Core::BadInput) { Formats::Reader.read(bytes) }.message
      end
    end

    # What is doubtful is asked once: dates that could be two days, a name that is misspelled, ground far off; and the
    # next file knows.
    def test_what_is_doubtful_is_asked_once
      rows = [HEADS, ["A1", 38.0031, -91.4033, "galric mustrad", "3/4/2026", 5, nil, nil],
              ["A2", 38.0021, -91.4023, "galric mustrad", "13/4/2026", 6, nil, nil],
              ["A3", 38.0041, 91.4013, "kudzu", "2026-05-01", 1, nil, nil]]
      send_form :post, "/survey/arrivals", file: upload(book(["walk", rows]), "walk.xlsx")
      arrival = Store::Arrival.order(:id).last
      follow_redirect!

      assert_equal({ "add" => 2, "far" => 1 }, arrival.counts)
      assert_said "Dates such as 3/4/2026", "the longitude may lack its minus", "galric mustrad"
      assert_equal "garlic_mustard", Nokogiri::HTML5(last_response.body).at_css("select[name='name[0]']")
                                             .css("option")[1]["value"], "the closest is offered first"
      columns = arrival.columns.keys.each_index.to_h { |n| ["column[#{n}]", arrival.columns.values[n].to_s] }
      answers = { days: "dmy", "named[0]": "galric mustrad", "name[0]": "garlic_mustard" }
      answers.update(columns.transform_keys(&:to_sym))
      send_form :post, "/survey/arrivals/#{arrival.id}", _method: "put", **answers
      send_form :post, "/survey/arrivals/#{arrival.id}/take"
      wait_for { arrival.refresh.taken? }
      taken = arrival.patches.sort_by(&:id)

      assert_equal [["garlic_mustard", Date.new(2026, 4, 3)], ["garlic_mustard", Date.new(2026, 4, 13)]],
                   taken.map { |one| [one.plant_key, one.seen_on] }
      again = book(["w", [HEADS, ["B1", 38.0035, -91.405, "Galric Mustrad", nil, 1, nil, nil]]])
      send_form :post, "/survey/arrivals", file: upload(again, "b.xlsx")

      assert_nil Store::Arrival.order(:id).last.arrival_rows.first.reason, "the name is known from the last file"
      send_form :post, "/survey/arrivals/#{arrival.id}/undo"

      assert_empty arrival.refresh.patches_dataset.live.all
    end
  end
end
