# frozen_string_literal: true

require "nokogiri"
require "open3"
require "support/web"

module Thistle
  # Home, over all properties.
  class WebTodayTest < RackTest
    def today = Testing::TODAY
    def q = Store::Property.first(prefix: "Q")

    def test_today_stands_a_crowd_of_patches
      patch = patch("Q-04").values.except(:id)
      Sequel::Model.db[:patches].multi_insert(Array.new(150) { |n| patch.merge(code: "Q-#{n + 500}") })

      assert_equal 200, get("/").status
      assert_match(/10 of 1[67]\d/, last_response.body)
    end

    def test_today_says_what_presses_over_all_properties
      board = json("/.json")
      groups = board["agenda"].to_h { |row| [row["patch"], row["group"]] }

      assert_equal "closing", groups["Q-07"]
      assert_equal "good", groups["Q-04"]
      assert_equal "stuck", groups["Q-23"], "nobody is covered against its sap"
      assert_equal "waiting", groups["Q-10"], "freed already; its stumps wait for full leaf"
      assert_equal %w[B P Q S], board["agenda"].map { |row| row["patch"][0] }.uniq.sort
      assert_operator board["due_count"], :>, 0
      assert_equal %w[278 ft²], Web::Today::Board.new(Store::Property.all, Testing::TODAY)
                                                 .amount(patch("P-03")), "in the units of its own property"
    end

    def test_today_shows_due_work_that_no_other_row_covers
      board = Web::Today::Board.new(Store::Property.order(:id).all, today)
      rows = board.groups.values.flat_map(&:items).map { |item| [board.patch(item.id).code, "treat"] }
      shown = board.due.map { |task| [task[:code], task.kind] } + rows
      wanted = Store::Task.due(through: today + 7).all.map { |task| [task[:code], task.kind] }

      assert_empty wanted.reject { |_, kind| kind == "treat" }.first(10) - shown
      stub = patch("Q-05")
      Store::Treatment.record(stub, stub.property.site(today), done_on: today - 28, method_key: "limb_up_and_flag",
                              crew_size: 1, hours: 1.0, stems_done: 2)

      Store::Task.exclude(patch_id: stub.id).update(done_on: today)
      due = Web::Today::Board.new([stub.property], today).due.map { |task| [task[:code], task.kind] }

      assert_includes due, %w[Q-05 treat]
    end

    def test_cleaning_is_asked_weekly_in_seed_season
      Store::Setting.write("today", "2026-06-20")
      get "/"

      assert_includes last_response.body, "Seed is ripe on garlic mustard"
      send_form(:post, "/work/cleanings", property: q.id)

      assert_equal Date.new(2026, 6, 20), Store::Cleaning.last_days.fetch(q.id)
      refute_includes Web::Today::Board.new(Store::Property.all, Date.new(2026, 6, 26)).hygiene.keys.map(&:prefix), "Q"
      assert_includes Web::Today::Board.new(Store::Property.all, Date.new(2026, 6, 27)).hygiene.keys.map(&:prefix), "Q"
    end

    # The page has what docs/glossary.md has, every line of it a term with its words; what is typed finds terms too.
    def test_the_glossary
      lines = File.readlines(Web::Glossary::PATH).grep(/\A- /)
      told = json("/glossary.json")

      assert_equal ["The trade", "The software", "The house"], told.keys
      assert_equal lines.sum { |line| line.scan(/\*\*.+?\*\*: /).size }, told.values.sum(&:size)
      assert(told.values.flat_map(&:values).all? { |words| words.end_with?(".") && words.split.size <= 40 })
      get "/find?q=basal"

      assert_said "basal bark", "herbicide in oil"
    end

    # A patch without a name stands where work is looked for, with what is to be done; no page of it fails.
    def test_what_has_no_name_is_to_be_found_out
      nameless = Store::Patch.first(plant_key: nil)
      ["/", "/work"].each do |page|
        get page

        assert_said "Find out what it is", "/identify?patch=#{nameless.id}"
      end
      assert_equal [nameless.code], json("/.json")["nameless"].map { |one| one["patch"] }
      ["/work", "/decide", "/decide/courses/new"].each do |page|
        assert_includes get("#{page}?patch=#{nameless.id}").headers["location"], "/identify?patch=#{nameless.id}"
        assert_match(/Find out what/, json("#{page}.json?patch=#{nameless.id}")["error"])
      end
      get "/decide?patch=#{nameless.id}&plant=garlic_mustard"

      assert_said "if it stands on"
    end
  end
end
