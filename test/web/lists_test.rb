# frozen_string_literal: true

require "csv"
require "roo"
require "support/web"

module Thistle
  # Tables of all records: each sorted by each column, narrowed, handed on, changed several at once and taken back.
  class WebListsTest < RackTest
    KINDS = Web::Records::Routes::Lists::KINDS
    def today = Testing::TODAY
    def q = Store::Property.first(prefix: "Q")
    def table(kind, **params) = KINDS.fetch(kind).new(q, params.transform_keys(&:to_s), q.measures, today)
    def path(kind, **query) = "/records/lists/#{kind}.json?#{Rack::Utils.build_query(query)}"

    # Of every kind: page, JSON and file hold the same rows, by every column up and down.
    def test_every_list_sorts_and_is_handed_on_whole
      KINDS.each_key do |kind|
        assert_equal 200, get("/records/lists/#{kind}").status, kind
        columns = table(kind).columns
        columns.select(&:by).each do |column|
          up, down = %w[0 1].map { |way| json(path(kind, sort: column.key, down: way)) }

          assert_equal up["total"], down["total"]
          assert_operator up["total"], :>, 0, kind
          cells = up["rows"].map { |row| row[column.key] }

          assert_equal cells.tally, down["rows"].map { |row| row[column.key] }.tally if up["total"] <= 60
          assert_sorted cells, "#{kind} by #{column.key}"
        end
        get "/records/lists/#{kind}/file"
        rows = CSV.parse(last_response.body, headers: true)

        assert_equal [columns.map(&:label), table(kind).total], [rows.headers, rows.size], kind
      end
    end

    # Another library than the one that wrote it reads each list whole, days as days; every column says what it holds.
    def test_all_lists_are_one_workbook
      note = Store::Treatment.where(deleted_at: nil).first
      note.update(note: "=HYPERLINK(\"x\")")
      get "/records/workbook"
      File.binwrite(path = File.join(Dir.mktmpdir, "all.xlsx"), last_response.body)
      book = Roo::Spreadsheet.open(path, disable_html_wrapper: true)

      assert_equal [*KINDS.values.map(&:title), "Columns"], book.sheets
      KINDS.each do |kind, table_class|
        sheet = book.sheet(table_class.title)

        assert_equal table(kind).columns.map(&:label), sheet.row(1)
        assert_equal table(kind).total, sheet.last_row - 1, kind
      end
      treatments = book.sheet("Treatments")

      assert_kind_of Date, treatments.cell(2, 1)
      assert_includes treatments.column(11), "'=HYPERLINK(\"x\")"
      assert_equal KINDS.keys.sum { |kind| table(kind).columns.size }, book.sheet("Columns").last_row - 1
    end

    # Numbers and days as they are; text by SQLite's order, codes by length first.
    def assert_sorted(cells, words)
      told = cells.compact
      order = told.first.is_a?(String) ? ->(one) { [one.size, one] } : ->(one) { one }
      sorted = [told.sort, told.sort_by(&order), told.sort_by { |one| one.to_s.downcase }]

      assert_includes sorted, told, words
    end

    def test_lists_are_narrowed
      assert_equal %w[amur_honeysuckle], json(path("patches", q: "amur"))["rows"].map { |row| row["plant_key"] }.uniq
      assert_equal Store::Patch.live.where(property_id: q.id, state: "quiet").count,
                   json(path("patches", state: "quiet"))["total"]
      done = json(path("treatments", from: "2025-08-01", to: "2025-08-31", q: "Q-08"))["rows"]

      assert_equal [%w[2025-08-16 Q-08]], done.map { |row| row.values_at("done_on", "patch") }
      assert_equal %w[planting], json(path("visits", asks: "planting"))["rows"].map { |row| row["kind"] }.uniq
      assert_equal ["J. Finch"], json(path("people", role: "crew_lead"))["rows"].map { |row| row["name"] }
      assert_equal 1, json(path("seed", q: "bluestem"))["total"]
      %w[from=never from=2026-02-30 to=%27].each do |bad|
        assert_equal 422, get("/records/lists/visits?#{bad}").status, bad
      end
      assert_equal [404, 200, 0], [get("/records/lists/nothing").status, get("/records/lists/patches?sort=no").status,
                                   json(path("patches", q: "%_'\""))["total"]]
    end

    def test_several_are_changed_at_once_and_taken_back
      two = %w[Q-01 Q-04].map { |code| patch(code).id }
      send_form :post, "/records/lists/patches", act: "aim", set_aim: "trees", ids: two
      follow_redirect!

      assert_said "2 records changed."
      assert_equal %w[trees trees], two.map { |id| Store::Patch[id].aim }
      send_form :post, "/survey/changes/#{Store::Change.undoable.get(:id)}/undo"

      assert_equal [nil, nil], two.map { |id| Store::Patch[id].aim }
      send_form :post, "/records/lists/patches", act: "visit", due_on: "2026-06-01", ids: two
      asked = json(path("visits", from: "2026-06-01", to: "2026-06-01"))["rows"]
              .select { |row| row["reason"].include?("list") }

      assert_equal %w[Q-01 Q-04], asked.map { |row| row["code"] }
      send_form :post, "/records/lists/visits", act: "drop", ids: asked.map { |row| row["id"] }

      assert_equal 303, last_response.status
      dropped = asked.map { |row| row["id"] }

      assert_equal 2, Store::Task.where(id: dropped).exclude(dropped_at: nil).count
      send_form :post, "/records/lists/visits/back/#{dropped.join("-")}"

      assert_equal 0, Store::Task.where(id: dropped).exclude(dropped_at: nil).count
      lot = Store::SeedOnHand.live.first
      send_form :post, "/records/lists/seed", act: "off", ids: [lot.id]

      refute_nil lot.refresh.deleted_at
      send_form :post, "/records/lists/seed/back/#{lot.id}"

      assert_nil lot.refresh.deleted_at
    end

    # What cannot be done to all is done to none, and what was ticked stays ticked.
    def test_what_cannot_be_changed_is_said
      own = Store::Task.due(through: today + 400).where(property_id: q.id).where(kind: "check").all
                       .find { |task| !task.by_word? }
      elsewhere = Store::Patch.live.exclude(property_id: q.id).get(:id)
      { ["visits", { act: "drop", ids: [own.id] }] => "A check or a treatment makes these visits",
        ["patches", { act: "aim", ids: [patch("Q-01").id] }] => "Say what to set",
        ["patches", { act: "aim", set_aim: "gold", ids: [patch("Q-01").id] }] => "not an aim",
        ["patches", { act: "visit", due_on: "2020-01-01", ids: [patch("Q-01").id] }] => "has passed",
        ["patches", { act: "aim", set_aim: "trees" }] => "Tick the rows first",
        ["patches", { act: "aim", set_aim: "trees", ids: [elsewhere] }] => "Not all of these records",
        ["checks", { act: "off", ids: [1] }] => "That cannot be done" }.each do |(kind, told), words|
        send_form :post, "/records/lists/#{kind}", **told

        assert_equal 422, last_response.status, words
        assert_said words
      end
      assert_nil own.refresh.dropped_at
    end

    # What was taken back, split or merged comes back through its own record, never through a list.
    def test_no_list_brings_back_what_has_a_record_of_its_own
      gone = patch("Q-01").tap { |one| one.update(deleted_at: Time.now) }
      %w[patches treatments checks].each do |kind|
        assert_equal 404, send_form(:post, "/records/lists/#{kind}/back/#{gone.id}").status, kind
      end
      refute_nil gone.refresh.deleted_at
    end

    # A name that was wrong on a winter's records is put right on all of them, each with its correction.
    def test_who_was_there_is_set_on_many_records
      ids = json(path("treatments", q: "Q-07"))["rows"].map { |row| row["id"] }
      send_form :post, "/records/lists/treatments", act: "people", set_people: "J. Finch, R. Lindqvist", ids: ids

      assert_equal 422, last_response.status, "whoever corrects says so"
      send_form :post, "/records/lists/treatments", act: "people", set_people: "J. Finch, R. Lindqvist", ids: ids,
                                                    set_by: "M. Oakes"

      assert_equal ["J. Finch, R. Lindqvist"] * ids.size, Store::Treatment.where(id: ids).select_map(:people)
      assert_equal ["M. Oakes"] * ids.size, ids.flat_map { |id| Store::Treatment[id].amendments.map(&:person) }
    end
  end
end
