# frozen_string_literal: true

require "support/web"

module Thistle
  # Learning from looks, in the rooms that use it.
  class WebLearnedTest < RackTest
    def kill
      found = json("/decide.json?patch=#{patch("Q-04").id}")["verdicts"].find { |one| one["method"] == "lever_pull" }
      found["kill_percent"]
    end

    # Four treatments, each with half of 30 stems alive afterwards.
    def fail_often(times = 4, alive: 15)
      times.times do |n|
        on = Date.new(2025, 6, 1) + (20 * n)
        work = Store::Treatment.create(patch_id: patch("Q-04").id, done_on: on, crew_size: 1, hours: 1.0,
                                       method_key: "lever_pull", stems_done: 30)
        Store::Check.create(patch_id: work.patch_id, treatment_id: work.id, checked_on: on + 14, resprouts: alive,
                            missed: 0, seedlings: 0)
      end
    end

    def test_looks_move_every_room_and_can_be_left_out
      Store::Check.where(treatment_id: Store::Treatment.where(method_key: "lever_pull").select(:id)).delete
      before = kill

      assert_equal 85, before["likely"]
      fail_often
      after = kill

      assert_equal [4, 120, "own_records"], after.values_at("records", "stems", "source")
      assert_includes 55..75, after["likely"]
      assert_operator after["low"], :<, before["low"]
      get "/decide?patch=#{patch("Q-04").id}"

      assert_said "worked worse here than its lowest planning value, two times in a row"
      row = json("/recheck/learned.json")["rows"].find { |one| one["method"] == "lever_pull" }

      assert_equal [4, 120], row.values_at("records", "stems")
      get "/recheck/learned"

      assert_said "120 stems", "handbook: 70 to 95 %"
      look = Store::Check.last
      send_form(:post, "/records/looks/#{look.id}/leave-out", version: 0, person: "", reason: "")

      assert_equal 422, last_response.status
      send_form(:post, "/records/looks/#{look.id}/leave-out", version: 0, person: "Ines", reason: "old mix")

      assert_equal 3, kill["records"]
      get "/records/check/#{look.id}"

      assert_said "old mix"
      send_form(:post, "/records/looks/#{look.id}/leave-out", version: 0, person: "Ines", reason: "again")
      follow_redirect!

      assert_said "Someone else corrected it meanwhile"
      send_form(:post, "/records/looks/#{look.id}/take-in", version: 1, person: "Ines")

      assert_equal 4, kill["records"]
    end

    # What was learned goes along when a patch turns out to be another plant.
    def test_a_patch_that_is_renamed_teaches_its_new_plant
      Store::Check.where(treatment_id: Store::Treatment.where(method_key: "lever_pull").select(:id)).delete
      fail_often
      records = -> do
        %w[amur_honeysuckle autumn_olive].map { |plant| Store::Learned.efficacy.of(plant, "lever_pull").records }
      end

      assert_equal [4, 0], records.call
      named = patch("Q-04")
      named.update(plant_key: "autumn_olive")
      Store::Observation.told(named, seen_on: Testing::TODAY, plant_key: "autumn_olive", settled: true)

      assert_equal [0, 4], records.call
    end

    # A clean look in winter, when nothing would show, says nothing.
    def test_a_clean_look_counts_only_when_something_would_show
      Store::Check.where(treatment_id: Store::Treatment.where(method_key: "lever_pull").select(:id)).delete
      fail_often(1, alive: 0)

      assert_equal 1, kill["records"]
      send_form(:post, "/records/check/#{Store::Check.last.id}", checked_on: "2026-01-15", resprouts: "0", missed: "0",
                                                                 seedlings: "0", person: "Ines", reason: "the day",
                                                                 version: "0")

      assert_equal 303, last_response.status
      assert_equal 0, Store::Learned.efficacy.of("amur_honeysuckle", "lever_pull").records
    end
  end
end
