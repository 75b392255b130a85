# frozen_string_literal: true

require "support/web"

module Thistle
  # A patch's years ahead, and what a year left out would cost.
  class WebOutlookTest < RackTest
    def outlook(code, **asked)
      json("/recheck/patches/#{patch(code).id}/outlook.json?#{Rack::Utils.build_query(asked)}")
    end

    def way(answer, key) = answer["ways"].find { |one| one["way"] == key }

    def test_ways_of_going_on_with_a_patch_that_was_counted
      answer = outlook("Q-07")

      assert_operator answer["fit"], :>, 0
      assert_equal 2026, way(answer, "hand_pull")["years"].first["year"], "looked at this year, not worked in yet"
      assert_operator way(answer, "skipped")["hours"]["mean"], :>, way(answer, "hand_pull")["hours"]["mean"]
      assert_operator way(answer, "stopped")["failed"], :>, way(answer, "hand_pull")["failed"]
      worse = outlook("Q-07", found: 60)

      assert_operator way(worse, "hand_pull")["failed"], :>, way(answer, "hand_pull")["failed"]
      assert_equal answer, outlook("Q-07"), "the same question has the same answer"
    end

    # What stands again from the roots is what the years ahead begin with; the first of January is of the new year.
    def test_suckers_begin_the_years_ahead
      felled = patch("Q-02")
      Store::Check.record(felled, checked_on: Date.new(2026, 1, 1), resprouts: 1, missed: 0, seedlings: 0, suckers: 250)
      ahead = Store::PatchOutlook.new(patch("Q-02"), Testing::TODAY)

      assert_equal 251, ahead.now
      assert_equal 251, ahead.now_counted.alive
    end

    def test_the_page_draws_it_and_says_what_it_took
      get "/recheck/patches/#{patch("Q-07").id}/outlook?show=stirred"

      assert_said "all seedlings removed", "To skip this year costs about", "years from seedling to seed",
                  "plants that live alike"
      assert_includes last_response.body, 'class="counted"'
      get "/recheck/patches/#{patch("Q-07").id}/outlook?years=4000&visits=x&ways[]=nothing&show=none"

      assert_said "is a whole number from 5 to 40", "is a whole number from 1 to 6"
      nameless = Store::Patch.where(plant_key: nil).first
      get "/recheck/patches/#{nameless.id}/outlook"
      follow_redirect!

      assert_said "Identify the plant first."
    end

    # A patch that was only cut is not reckoned as if that killed.
    def test_cutting_alone_is_shown_and_not_gone_on_with
      read = Store::PatchOutlook.new(patch("Q-02"), Testing::TODAY)

      refute_equal "cut_only", read.removals.first.key
      cut = way(outlook("Q-02", "ways[]" => "cut_only"), "cut_only")

      assert_operator cut["failed"], :>, 0.5
    end

    def test_a_year_left_out_is_priced_over_the_property
      get "/recheck/skip"

      assert_said "If nobody comes this year"
      answer = json("/recheck/skip.json")

      assert_operator answer["hours"], :>, 0
      assert_in_delta answer["rows"].sum { |row| row["later_money"] }, answer["money"], 1
    end

    # What its neighbours sow counts as plants of its own, thinner the farther.
    def test_seed_rain_of_neighbours
      read = Store::PatchOutlook.new(patch("Q-01"), Store::Setting.today)
      far, near = [200.0, 5.0].map { |m| Core::Recheck::SeedRain.new(read.stages).density(m) }

      assert_operator near, :>, far * 20
      ring = (1..4000).sum { |m| Core::Recheck::SeedRain.new(read.stages).density(m - 0.5) * 2 * Math::PI * (m - 0.5) }

      assert_in_delta 1.0, ring, 0.03, "all seed lands somewhere"
    end
  end
end
