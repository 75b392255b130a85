# frozen_string_literal: true

require "nokogiri"
require "open3"
require "support/web"

module Thistle
  # Looks, and visits: those that records ask for, and those that people do.
  class WebRecheckTest < RackTest
    def today = Testing::TODAY
    def q = Store::Property.first(prefix: "Q")

    def test_a_check_with_more_alive_than_treated
      send_form :post, "/recheck/checks", patch: patch("Q-06").id, checked_on: "2026-05-12", resprouts: "65",
                missed: "0", seedlings: "0"

      assert_equal 422, last_response.status
      assert_includes last_response.body, "more than the 64 that were treated"
      assert_includes last_response.body, 'value="65"'
    end

    # What a person asked for is theirs: made on their word, taken back, asked for again.
    def test_visits_asked_for_by_hand
      send_form :post, "/recheck/tasks", patch: patch("Q-06").id, kind: "check", reason: "Look at the spring",
                wait: "date", due_on: "2027-05-01"
      task = Store::Task.first(reason: "Look at the spring")
      send_form :post, "/work/treatments", patch: patch("Q-06").id, method_key: "hand_pull", done_on: today.iso8601,
                crew_size: "2", hours: "1", stems_done: "4"

      assert_predicate task.refresh, :open?
      { "made" => "made", "drop" => "drop" }.each_key do |act|
        send_form :post, "/recheck/tasks/#{task.id}/#{act}"

        refute_predicate task.refresh, :open?
        send_form :post, "/recheck/tasks/#{task.id}/#{act}"

        assert_predicate task.refresh, :open?
      end
      other = patch("Q-06").tasks.find(&:key)
      send_form :post, "/recheck/tasks/#{other.id}/drop"

      assert_equal 404, last_response.status, "what follows from records is not dropped by hand"
    end

    def test_a_look_in_winter_says_nothing
      send_form :post, "/recheck/checks", patch: patch("Q-06").id, checked_on: "2026-01-10", resprouts: "0",
                missed: "0", seedlings: "0"
      follow_redirect!

      assert_includes last_response.body, "Q-06 is hit. Nothing would have shown on that day"
      assert_equal 0, patch("Q-06").life.clean_checks
    end

    def test_a_visit_can_wait_for_the_year
      ask = ->(**fields) do
        send_form(:post, "/recheck/tasks", patch: patch("Q-02").id, kind: "check", reason: "Suckers", **fields)
      end
      ask.call(wait: "frosts", frosts: "3")
      task = Store::Task.where(reason: "Suckers").first

      assert_equal q.site(today).year.date(:third_frost), task.due_on
      get "/"

      assert_includes last_response.body, "Waits for 3 frosts."
      ask.call(wait: "date", due_on: "2026-05-01")

      assert_includes last_response.body, "The day has passed"
      ask.call(wait: "rain", rain: "5000", within: "3")

      assert_equal 422, last_response.status
    end

    # An event happens once: what came stays, whatever the weather says later.
    def test_what_happened_has_happened
      task = Store::Task.create(patch_id: patch("Q-02").id, kind: "check", due_on: Date.new(2027, 1, 1),
                                reason: "After rain", source: "common_practice",
                                event: JSON.generate(rain_mm: 5, within: 2, days_after: 1), since_on: today - 30)
      Store::Task.follow_weather([q], today)
      get "/"
      happened = task.refresh.happened_on

      assert happened
      assert_equal happened + 1, task.due_on
      assert_includes last_response.body, "It came: 5 mm of rain within 2 days"
      task.update(event: JSON.generate(rain_mm: 500, within: 2))
      Store::Task.follow_weather([q], today)

      assert_equal happened, task.refresh.happened_on
    end
  end
end
