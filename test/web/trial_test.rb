# frozen_string_literal: true

require "support/web"

module Thistle
  # Two methods beside each other, by several hands at once.
  class WebTrialTest < RackTest
    ASKED = { question: "Half or undiluted?", first_method: "cut_stump", first_how: "half", second_method: "cut_stump",
              second_how: "undiluted", count: "24" }.freeze

    def begin_one(**other)
      send_form(:post, "/recheck/trials", patch: patch("Q-04").id, **ASKED, **other)
      last_response.location.to_s[%r{trials/(\d+)}, 1]
    end

    def trial(id) = json("/recheck/trials/#{id}.json")
    def tags(id, arm) = trial(id)["tags"].select { |tag| tag["arm"] == arm }.map { |tag| tag["number"] }

    def count(id, **said)
      send_form(:post, "/recheck/trials/#{id}/results", counted_on: "2026-05-12", **said)
    end

    def test_a_trial_from_the_question_to_the_answer
      id = begin_one

      assert_equal [12, 12], [tags(id, 0).size, tags(id, 1).size]
      assert_equal 422, count(id, alive: "1, 99").status
      assert_said "Tag 99 is not one that waits"
      assert_equal 422, count(id, alive: "1", unfound: "1").status
      assert_equal 422, count(id, alive: "one").status
      count(id, alive: tags(id, 1).first(9).join(" "), unfound: tags(id, 0).first.to_s)
      answer = trial(id)

      assert_equal [[11, 0, 1], [3, 9, 0]], answer["arms"].map { |arm| arm.values_at("dead", "alive", "open") }
      assert_equal "better", answer["settled"]
      get "/recheck/trials/#{id}"

      assert_said "Settled: it is nearly certain", "half"
      send_form(:post, "/recheck/trials/#{id}/tags", count: "30")

      assert_operator tags(id, 0).size, :>, 12 + 24
      send_form(:post, "/recheck/trials/#{id}/tags/#{tags(id, 1).last}", state: "alive")

      assert_equal 303, last_response.status
      get "/recheck/trials"

      assert_said "Half or undiluted?"
    end

    def test_what_is_no_trial_is_refused_and_kept
      begin_one(count: "1")

      assert_equal 422, last_response.status
      assert_said "Half or undiluted?"
      begin_one(second_how: "Half")

      assert_said "is the same as the first: say what sets them apart"
      id = begin_one
      send_form(:post, "/recheck/trials/#{id}/tags", count: "x")

      assert_equal 422, last_response.status
    end

    # Each gives out tags of their own.
    def test_two_people_give_out_tags_at_once
      run = Store::TrialRun[begin_one.to_i]
      Array.new(2) { Thread.new { Store::TrialRun[run.id].give_out(10, Testing::TODAY) } }.each(&:join)

      assert_equal (1..44).to_a, Store::TrialStem.where(trial_id: run.id).order(:number).select_map(:number)
      send_form(:post, "/recheck/trials/#{run.id}/drop")

      assert_equal 404, get("/recheck/trials/#{run.id}").status
      send_form(:post, "/recheck/trials/#{run.id}/undo")

      assert_equal 200, get("/recheck/trials/#{run.id}").status
    end
  end
end
