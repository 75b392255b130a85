# frozen_string_literal: true

require "caxlsx"
require "csv"
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

    BOOK = {
      "Patches" => [%w[Ref Lat Long Plant Date Observer],
                    ["Z-1", 38.0031, -91.4033, "garlic mustard", "2024-05-01", "T. Abara"]],
      "Work" => [%w[Patch Date Method Crew Hours Plants Notes],
                 ["Z-1", "2024-05-09", "Pull by hand", 3, 2.5, 120, "wet"],
                 ["Q-07", "2025-05-03", "pull by hand", 2, 1, 40, nil],
                 ["X-9", "2025-05-03", "Pull by hand", 2, 1, 4, nil],
                 ["Z-1", "2024-04-02", "Pull by hand", 2, 1, 40, nil]],
      "Monitoring" => [%w[Patch Date Alive Seedlings], ["Z-1", "2025-04-09", 4, 30], ["Z-1", "2025-05-09", nil, nil]],
      "Planted" => [["Patch", "Species", "Date planted", "Number", "Area m2"],
                    ["Z-1", "spicebush", "2025-10-09", 12, 20]]
    }.freeze

    def bring(bytes, name = "years.xlsx")
      send_form :post, "/survey/arrivals", file: upload(bytes, name)
      Store::Arrival.order(:id).last
    end

    def take(arrival)
      send_form :post, "/survey/arrivals/#{arrival.id}/take"
      wait_for { arrival.refresh.taken? }
    end

    # Patches, work, checks and plantings of one workbook: taken, the same again, and taken back.
    def test_years_of_work_come_in_with_their_patches
      arrival = bring(book(*BOOK.to_a))

      assert_equal({ "add" => 5, "refuse" => 3 }, arrival.counts)
      reasons = arrival.arrival_rows_dataset.where(verdict: "refuse").select_map(:reason)
      ["no patch is called X-9", "before Z-1 was first seen", "what was alive"].each do |words|
        refute_empty reasons.grep(/#{words}/), words
      end
      before = [Store::Treatment, Store::Check, Store::Planting].map { |model| model.where(deleted_at: nil).count }
      take(arrival)
      patch = Store::Patch.live.first(code: "Z-1")

      assert_equal "regrowing", patch.state
      assert_equal [[Date.new(2024, 5, 9), 3, 2.5, 120, "wet"]],
                   patch.treatments.map { |one|
                     one.values.values_at(:done_on, :crew_size, :hours, :plants_done, :note)
                   }
      assert_equal [4, 30, 0], patch.checks.first.values.values_at(:resprouts, :seedlings, :missed)
      assert_equal ["spicebush", 12], patch.plantings.first.values.values_at(:native_key, :plugs)
      assert_equal ["T. Abara"], patch.observations.map(&:people)
      assert_operator patch.tasks.size, :>, 0, "visits follow"

      assert_equal({ "same" => 5, "refuse" => 3 }, bring(book(*BOOK.to_a)).counts)
      send_form :post, "/survey/arrivals/#{arrival.id}/undo"

      assert_equal(before, [Store::Treatment, Store::Check, Store::Planting].map do |one|
        one.where(deleted_at: nil).count
      end)
      assert_nil Store::Patch.live.first(code: "Z-1")
    end

    # A row is put right in its table, one is taken as the file says again, and what stays out leaves as a file.
    def test_rows_are_put_right
      arrival = bring(book(["w", [HEADS, ["R1", "north of the barn", nil, "garlic mustard", nil, 3, nil, nil],
                                  ["R2", 38.0021, -91.4023, "garlic mustard", nil, "some", nil, nil]]]))
      bad, good = arrival.arrival_rows
      at = "/survey/arrivals/#{arrival.id}/rows/#{bad.id}"

      assert_equal "refuse", bad.verdict
      get "/survey/arrivals/#{arrival.id}/left"
      assert_equal [%w[R1 refused]], CSV.parse(last_response.body, headers: true).map { |row|
        row.values_at("Ref.", "verdict")
      }
      send_form :post, at, _method: "put", place: "nowhere"
      assert_equal 422, last_response.status
      assert_said "The place is none that is understood", "nowhere"

      n = arrival.columns.keys.index("No. of plants")
      send_form :post, at, _method: "put", place: "38 0.186 N, 91 24.2 W", "cell[#{n}]": "5"
      assert_equal %w[add add], arrival.arrival_rows_dataset.order(:row).select_map(:verdict)
      assert_equal [38.0031, -91.40333], bad.refresh.point.reverse.map { |one| one.round(5) }
      get at
      assert_said "The file said: 3"

      send_form :post, "#{at}/as-read"
      assert_equal ["refuse", nil, "3"], [bad.refresh.verdict, bad.was, bad.cells["No. of plants"]]
      take(arrival)
      assert_equal 409, get("/survey/arrivals/#{arrival.id}/rows/#{good.id}").status
      assert_equal 404, get("/survey/arrivals/999999/rows/1").status
    end
  end
end
