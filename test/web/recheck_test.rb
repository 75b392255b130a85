# frozen_string_literal: true

require "chunky_png"
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

    def look(code, **said)
      send_form(:post, "/recheck/checks", patch: patch(code).id, checked_on: "2026-05-12", resprouts: "0", missed: "0",
                                          seedlings: "0", **said)
    end

    # Suckers, a frame, untreated stems beside, natives, effort; put right afterwards like any record.
    def test_all_that_a_look_can_say
      assert_equal 422, look("Q-06", frame_count: "12").status
      assert_said "is needed too: enter both fields or neither"
      assert_equal 422, look("Q-06", untreated: "5", untreated_alive: "6").status
      assert_equal 422, look("Q-06", untreated: "many", untreated_alive: "6").status
      odd = { patch: patch("Q-06").id, resprouts: "1", missed: "0", untreated: "x", untreated_alive: "3", minutes: "y" }

      assert_equal 200, send_form(:post, "/recheck/control", **odd).status
      assert_equal 422, look("Q-06", seedlings_seen: "none", seedlings: "4").status
      assert_said "were counted: none were seen?"
      look("Q-06", resprouts: "6", suckers: "3", frame_count: "12", frame_area: "0.5", untreated: "50",
                   untreated_alive: "45", natives: "some", searchers: "2", minutes: "10", sight: "open")
      check = patch("Q-06").checks.last
      ground = patch("Q-06").infested.first

      assert_equal [3, "frame", (24 * ground).round], [check.suckers, check.seedlings_seen, check.young]
      assert_in_delta 100 * (1 - (6 / 64.0 / 0.9)), check.corrected[:percent], 1e-9
      assert_in_delta 1 - Math.exp(-2 * 10 * 15 * 4 / patch("Q-06").gross_m2), check.detects(patch("Q-06").gross_m2),
                      0.02
      get "/survey/patches/#{check.patch_id}"

      assert_said "Compared with untreated stems nearby", "3 suckers", "some natives by themselves",
                  "searched 10 min by 2"
      kept = { checked_on: "2026-05-12", resprouts: "6", missed: "0", suckers: "1", seedlings: "0", frame_count: "12",
               frame_area: "0.5", untreated: "50", untreated_alive: "45" }
      send_form(:post, "/records/check/#{check.id}", **kept, person: "Ines", reason: "two were of the neighbour's",
version: "0")

      assert_equal [1, 24 * ground], [check.refresh.suckers, (check.frame_count / check.frame_m2) * ground]
    end

    # Treated and alive by thickness: each its share, with its range.
    def test_control_by_thickness
      work = { patch: patch("Q-06").id, method_key: "hand_pull", done_on: "2026-05-01", crew_size: "2", hours: "1" }
      send_form(:post, "/work/treatments", **work, size_pencil: "30", size_thumb: "10", stems_done: "20")

      assert_said "is less than the 40 by thickness"
      send_form(:post, "/work/treatments", **work, size_pencil: "30", size_thumb: "10")

      assert_equal 40, patch("Q-06").last_treatment.stems_done
      assert_equal 422, look("Q-06", size_thumb: "11").status
      assert_said "is more than the 10 that were treated"
      look("Q-06", size_pencil: "3", size_thumb: "4")
      check = patch("Q-06").checks.last

      assert_equal({ "pencil" => 90.0, "thumb" => 60.0 }, check.by_size.transform_values(&:percent))
      assert_equal 7, check.resprouts
      get "/survey/patches/#{check.patch_id}"

      assert_said "pencil: 90 % (", "thumb: 60 % ("
      get "/records/check/#{check.id}"

      assert_match(/name="size_thumb"[^>]*value="4"/, last_response.body)
    end

    # By the rules of the day: seedlings are pulled from moist soil; stumps are not painted while sap rises.
    def test_what_to_do_on_the_spot
      asked = { patch: patch("Q-05").id, checked_on: "2026-05-12" }
      send_form(:post, "/recheck/control", **asked, resprouts: "2", missed: "1", seedlings: "9")

      assert_match(%r{<b>Seedlings</b>: pull by hand, now}, last_response.body)
      assert_match(%r{<b>What stands again</b>: [a-z ]+, (now|from [A-Z0-9])}, last_response.body)
      send_form(:post, "/recheck/control", **asked, resprouts: "0", missed: "0", seedlings: "0")

      refute_includes last_response.body, 'class="spot"'
    end

    def test_a_glance_closes_nothing_and_what_is_over_opens_again
      closed = patch("Q-28")

      assert_equal "closed", closed.state
      look("Q-28", seedlings_seen: "some")
      follow_redirect!

      assert_said "Q-28 is regrowing. It was over, and is open again."
      look("Q-28")
      follow_redirect!

      assert_said "There is another check on that day. Both are saved"
    end

    # The rule is the property's: patches follow it, and what cannot be is refused.
    def test_when_a_patch_is_over
      get "/recheck/quiet?hours=1"

      assert_said "Is it over?", "a missed plant"
      assert_equal 422, send_form(:post, "/recheck/closing", close_below: "90", close_years: "likely").status
      send_form(:post, "/recheck/closing", close_below: "0.1", close_years: "high")

      assert_equal "quiet", patch("Q-12").state
      send_form(:post, "/recheck/closing", close_below: "5", close_years: "likely")

      assert_equal "closed", patch("Q-12").state
      answer = json("/recheck/quiet.json?hours=0.5")

      assert_operator answer["hours"], :<=, 0.5
      assert_operator answer["looks"].first["next_on"], :>, today.iso8601
      get "/recheck/quiet?hours=many"

      assert_said "Hours is not a number"
    end

    # With a photograph from somewhere else: said, and kept.
    def test_a_photograph_with_a_look
      picture = ChunkyPNG::Image.new(6, 4, ChunkyPNG::Color.rgb(9, 9, 9)).to_blob
      look("Q-06", file: upload(picture, "p.png"))
      follow_redirect!

      assert_said "The photograph has no location."
      assert_equal patch("Q-06").checks.last.id, Store::Picture.last.check_id
      far = Web::Recheck::LookKept.new(patch("Q-06")).said(patch("Q-06").checks.last, [38.2, -91.4])

      assert_match(/taken \d{5} m from the patch: is it of another place/, far)
      get "/recheck/patches/#{patch("Q-06").id}"

      assert_said "data-before=\"/work/pictures/#{Store::Picture.last.id}\""
      assert_equal 422, look("Q-06", file: upload("no picture", "p.png"), note: "by the spring").status
      assert_said "What you typed is kept", "by the spring"
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

      assert_includes last_response.body, "Q-06 is hit. No plant would have been visible on that day"
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
