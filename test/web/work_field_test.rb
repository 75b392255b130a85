# frozen_string_literal: true

require "support/web"
require "support/work_days"

module Thistle
  # A day in the field: what is tapped, and what is written down of it.
  class WebWorkFieldTest < RackTest
    include WorkDays

    # A tap that is sent twice counts once; a clock that jumped is not believed; a start without a stop is asked about.
    def test_taps
      propose
      one = Store::Patch[answer[:walk].first]
      now = (Time.now.to_f * 1000).round
      2.times { tap(one, "start", key: "the-same-key", at: now - 5_400_000) }
      tap(one, "start", at: now - 5_000_000)
      2.times { tap(one, "plants", key: "ten-at-once", amount: "10") }
      tap(one, "plants", amount: "1")
      tap(one, "stems", what: "thumb", amount: "1")
      tap(one, "seed", what: "falling")

      assert_equal [true, 11, 1, { "thumb" => 1 }, "falling"],
                   card(one).values_at("running", "plants", "stems", "by_size", "seed")
      get "/work/days/#{day.id}/after"

      assert_said "The timer was started but not stopped."
      tap(one, "stop", at: now - 1_800_000)

      assert_in_delta 1.0, card(one)["hours"], 0.01
      tap(one, "start", at: now + 400_000_000)

      assert_in_delta Time.now.to_f, Store::Tap.last.at.to_f, 5
      tap(one, "stems", what: "giant", amount: "1")

      assert_equal 422, last_response.status
      send_form(:post, "/work/days/#{day.id}/untap", patch: one.id)

      refute card(one)["running"]
      get "/work/days/#{day.id}/field/#{one.id}?one=30&other=25&both=20"

      assert_said "About <b>2</b> more stems"
      get "/work/days/#{day.id}/field/#{one.id}?one=3&other=2&both=9"

      assert_said "is more than either of them saw"
    end

    # What a plant's own file says of a method stands where hands read it: on the form, the brief and the field's card.
    def test_the_plants_own_sentence_travels
      propose
      said = answer[:turns].to_h { |turn| turn.values_at(:patch, :method) }.map do |id, method|
        [id, method, Core::Knowledge.shipped.removal(method).told(Store::Patch[id].plant)]
      end
      told = said.select(&:last)
      brief = get("/work/days/#{day.id}/brief").body

      assert_operator told.size, :>=, 3
      told.each do |id, method, words|
        pages = [brief, get("/work/days/#{day.id}/field/#{id}").body, get("/work?patch=#{id}&method=#{method}").body]

        pages.each { |page| assert_includes page, Rack::Utils.escape_html(words["text"]), "#{id} #{method}" }
      end
    end

    # The phone lets a tap go only once the server says that it holds it: its own, on the day's own property.
    def test_a_tap_is_held_for_its_own_patch_alone
      propose
      tap = { patch: patch("Q-05").id, kind: "plants", amount: "3", key: "tap-00000001" }
      2.times do
        send_form(:post, "/work/days/#{day.id}/taps.json", **tap)

        assert_equal({ "kept" => "tap-00000001" }, JSON.parse(last_response.body))
      end
      send_form(:post, "/work/days/#{day.id}/taps.json", **tap, patch: patch("Q-07").id)

      assert_equal [409, "Another tap was kept under this key."],
                   [last_response.status, JSON.parse(last_response.body)["error"]]
      elsewhere = Store::Patch.live.exclude(property_id: day.property_id).first
      send_form(:post, "/work/days/#{day.id}/taps.json", **tap, key: "tap-00000002", patch: elsewhere.id)

      assert_equal 422, last_response.status
      assert_match(/is not on the property of this day/, JSON.parse(last_response.body)["error"])
      assert_equal 1, Store::Tap.where(work_day_id: day.id).count
    end

    # One more of the same, where the phone stands, with its name to be settled; only cut is no treatment.
    def test_found_another_and_only_cut
      send_form(:post, "/work/people", **LEAD)
      propose("who[]": [person("B. Sands").id])
      treated = Store::Patch[herbicide.first[:patch]]
      send_form(:post, "/work/days/#{day.id}/found", patch: treated.id, lon: "-91.4021", lat: "38.0012")
      found = Store::Patch.last

      assert_equal [treated.plant_key, "reported", "Found beside #{treated.code}."],
                   found.values.values_at(:plant_key, :state, :note)
      send_form(:post, "/work/days/#{day.id}/found", patch: treated.id, lon: "east", lat: "38")

      assert_equal 422, last_response.status
      tap(treated, "start")
      tap(treated, "treated", what: "cut")
      get "/work/days/#{day.id}/after"

      assert_said "The record says: cut, not treated", 'value="cut_only" selected'
    end

    # One sheet becomes records, or none of it does; what was not begun stays open.
    def test_a_day_is_written_down
      add("K. Moor", "steward")
      propose("who[]": [person("K. Moor").id])
      with_her = answer[:turns].select { |turn| turn[:people].any? { |somebody| somebody[:name] == "K. Moor" } }
      one = Store::Patch[with_her.first[:patch]]
      two = Store::Patch[(answer[:walk] - [one.id]).first]
      tap(one, "people", amount: "3")
      tap(one, "start", at: ((Time.now.to_f - 3600) * 1000).round)
      tap(one, "plants", amount: "40")
      tap(one, "stop")
      get "/work/days/#{day.id}/after"

      assert_said one.code, "Not begun:", two.code, 'value="40"'
      assert_match(/name="done-#{one.id}" value="yes" checked/, last_response.body)
      method = answer[:done].find { |done| done[:patch] == one.id }[:method]
      sheet = { "method_key-#{one.id}": "cut_stump", "crew_size-#{one.id}": "3", "hours-#{one.id}": "1",
                "plants_done-#{one.id}": "40", "people-#{one.id}": "6 volunteers", "seed_fall-#{one.id}": "none",
                "done-#{one.id}": "yes" }
      travel(day.held_on) do
        send_form(:post, "/work/days/#{day.id}/after", **sheet)

        assert_said "how much stock was used", 'value="6 volunteers"'
        assert_equal 0, Store::Treatment.where(work_day_id: day.id).count
        send_form(:post, "/work/days/#{day.id}/after", **sheet, "active_key-#{one.id}": "glyphosate_ipa",
                                                               "product-#{one.id}": "50",
                                                               "applicator-#{one.id}": "R. Lindqvist")

        assert_equal 422, last_response.status
        assert_said "is not licensed on that day"
        assert_equal 0, Store::Treatment.where(work_day_id: day.id).count
        send_form(:post, "/work/days/#{day.id}/after", **sheet, "method_key-#{one.id}": method, looked: "true",
                                                               sight: "5000")

        assert_equal 422, last_response.status
        send_form(:post, "/work/days/#{day.id}/after", **sheet, "method_key-#{one.id}": method, "piles-#{one.id}": "2",
                                                               "bags-#{one.id}": "1", looked: "true", sight: "6")

        assert_equal 303, last_response.status, last_response.body[/bad-word.*/]
        follow_redirect!

        assert_said "Thank you", "plants out", "K. Moor", "looked over on the way"
        send_form(:post, "/work/days/#{day.id}/after", **sheet, "method_key-#{one.id}": method)
      end
      assert_equal [[one.id, 3, 1.0, 40]],
                   Store::Treatment.where(work_day_id: day.id).select_map(%i[patch_id crew_size hours plants_done])
      work = Store::Treatment.last

      assert_equal ["K. Moor, 6 volunteers", "Left: 2 piles, 1 bag."], [work.who, work.note]
      assert_match(/\A\d\d:\d\d\z/, work.started_at) if work.started_at # none where an hour ago was yesterday
      assert_equal work.started_at.nil?, work.ended_at.nil?
    end

    # Of a day on which nobody tapped anything, estimates are hints; whether anything was done is said by somebody, and
    # where nothing was, the day stays open.
    def test_nothing_is_written_down_that_nobody_said
      propose
      ids = answer[:walk]
      get "/work/days/#{day.id}/after"
      hours = last_response.body[/<input id="f-hours-#{ids.first}"[^>]*>/]

      assert_match(/value=""/, hours)
      assert_match(/placeholder="about /, hours)
      refute_match(/name="done-\d+" value="\w+" checked/, last_response.body)
      travel(day.held_on) do
        send_form(:post, "/work/days/#{day.id}/after", **ids.to_h { |id| [:"hours-#{id}", ""] })

        assert_said "Say whether anything was done here."
        no = ids.to_h { |id| [:"done-#{id}", "no"] }
        send_form(:post, "/work/days/#{day.id}/after", **no, "hours-#{ids.first}": "2")

        assert_said "You typed what was done. Say yes, or clear it.", 'value="2"'
        send_form(:post, "/work/days/#{day.id}/after", **no)
      end
      refute_predicate Store::WorkDay[day.id], :closed?
      assert_equal 0, Store::Treatment.where(work_day_id: day.id).count
    end
  end
end
