# frozen_string_literal: true

require "open3"
require "support/web"

module Thistle
  # The year of a property: marks seen, phases, the calendar.
  class WebSeasonTest < RackTest
    def q = Store::Property.first(prefix: "Q")
    def today = Testing::TODAY

    def see(**fields)
      send_form(:post, "/season/sightings", at: q.id, seen_on: today.iso8601, person: "T. Abara", **fields)
    end

    def test_a_mark_is_seen_moves_the_year_and_is_taken_back
      before = anchors
      see(kind: "anchor", said: "full_leaf", seen_on: (today - 2).iso8601)

      assert_equal [(today - 2).iso8601, true], anchors.fetch("full_leaf").values_at("date", "seen")
      assert_equal [before["first_frost"], before["leaf_out"]], anchors.values_at("first_frost", "leaf_out")
      get "/season"

      assert_includes last_response.body, "Full leaf seen on May 10 (T. Abara)"
      send_form(:delete, "/season/sightings/#{Store::Sighting.live.where(said: "full_leaf").get(:id)}")

      assert_equal before, anchors
    end

    # The word told last counts; without it the one before does again.
    def test_a_second_word_gives_way_when_it_is_taken_back
      [1, 3].each { |days| see(kind: "anchor", said: "full_leaf", seen_on: (today - days).iso8601) }

      assert_equal (today - 3).iso8601, anchors.fetch("full_leaf")["date"]
      send_form(:post, "/season/sightings/#{Store::Sighting.live.order(:id).last.id}/undo")
      assert_equal (today - 1).iso8601, anchors.fetch("full_leaf")["date"]
    end

    def test_who_saw_something_goes_back_to_a_page_of_ours
      elsewhere = ["/identify/plants/lonicera-maackii", "/identify/\r\nhttps://elsewhere.example/",
                   "https://elsewhere.example/identify/", "/identify/\xFF"]
      elsewhere.each do |back|
        see(kind: "anchor", said: "full_leaf", seen_on: (today - 2).iso8601, back:)

        assert_includes ["/identify/plants/lonicera-maackii", "/season", nil],
                        last_response.location && URI(last_response.location).path, back
        assert_equal "example.org", URI(last_response.location).host, back if last_response.location
        assert_operator last_response.status, :<, 500
      end
    end

    def test_marks_in_an_impossible_order_are_refused_and_what_was_typed_stays
      see(kind: "anchor", said: "full_leaf", seen_on: "2026-04-19")

      assert_equal 422, last_response.status
      assert_includes last_response.body, "comes before leaf-out, which was seen on April 21"
      assert_includes last_response.body, 'value="2026-04-19"'
      see(kind: "anchor", said: "leaf_out", seen_on: "2026-05-13")

      assert_includes last_response.body, "is in the future"
      see(kind: "anchor", said: "wet_end")

      assert_includes last_response.body, "a mark that this climate does not have"
    end

    # What can hardly be is asked again, and kept when it is said again.
    def test_a_mark_far_from_the_usual_wants_a_second_word
      Store::Sighting.where(said: "leaf_out").delete
      q.year_changed
      see(kind: "anchor", said: "last_frost", seen_on: "2026-01-20")

      assert_includes last_response.body, "send it once more"
      see(kind: "anchor", said: "last_frost", seen_on: "2026-01-20", sure: "true")

      assert_equal "2026-01-20", anchors.fetch("last_frost")["date"]
    end

    def test_a_phase_that_is_seen_moves_the_plant_here_and_nowhere_else
      honeysuckle = "/identify/plants/amur_honeysuckle.json"
      phases = -> { json("#{honeysuckle}?at=#{q.id}")["phases"].to_h { |span| [span["phase"], span] } }
      before = phases.call
      see(kind: "phase", plant_key: "amur_honeysuckle", said: "flower", began: "true", seen_on: "2026-04-28")
      after = phases.call

      assert_equal "2026-04-28", after["flower"]["from"]
      assert_equal (Date.iso8601(after["ripe_seed"]["from"]) - Date.iso8601(before["ripe_seed"]["from"])).to_i,
                   after["ripe_seed"]["moved_days"]
      other = Store::Property.first(prefix: "B")

      flower = json("#{honeysuckle}?at=#{other.id}")["phases"].find { |span| span["phase"] == "flower" }

      assert_equal 0, flower["moved_days"]
    end

    # A look at a patch says how far its plant is, too; taking the look back takes that back.
    def test_a_stage_seen_at_a_patch_counts_here
      phases = -> { json("/identify/plants/amur_honeysuckle.json?at=#{q.id}")["phases"] }
      moved = -> { phases.call.reverse.find { |span| span["phase"] == "ripe_seed" }["moved_days"] }
      send_form(:post, "/survey/patches/#{patch("Q-04").id}/again", seen_on: today.iso8601, stage: "green_seed")

      assert_operator moved.call, :<, 0
      send_form(:post, "/survey/changes/#{Store::Change.undoable.get(:id)}/undo")
      assert_equal 0, moved.call
    end

    # Read back by ical.js (npm), which is none of ours: whole days, hours on the clock, daylight saving in the zone.
    def test_the_calendar_is_read_by_an_independent_parser
      get "/season/calendar.ics?at=#{q.id}"
      events = parsed(last_response.body)
      fit = q.site(today).fit(:pulling).best_days.first
      hours = events.find { |event| event["uid"].start_with?("fit-pulling-#{fit.first}") }

      assert_equal events.map { |event| event["uid"] }.uniq.size, events.size
      assert_equal [fit.first, fit.last.from].then { |date, hour| q.clock.utc(date, hour).to_i }, hours["start"]
      assert_equal "America/Chicago", hours["zone"]
      seed = events.find { |event| event["uid"].start_with?("seed-garlic_mustard") }
      span = Core::Season::Phenology.new(Testing.plant("garlic_mustard"), q.site(today))
                                    .phenophases(q.site(today).year).find { |s| s.phase == :ripe_seed }

      assert_equal [span.from.iso8601, (span.to + 1).iso8601], seed.values_at("day", "end_day")
      assert_equal Store::Task.due(through: today + 400).where(property_id: q.id)
                              .count, events.count { |event| event["uid"].start_with?("task-") }
    end

    # Nine o'clock is fourteen hours UTC in May and fifteen in November.
    def test_hours_in_a_file_keep_to_daylight_saving
      entries = [Date.new(2026, 5, 12), Date.new(2026, 11, 12)].map do |date|
        Formats::Ics.write([Formats::Ics::Entry.new(uid: "x", title: "Pull; by hand, \"all\"", text: "a\nb",
                                                    kind: "Work days", from: [date, 9], to: [date, 12])],
                           name: "Test", zone: "America/Chicago", stamp: Time.utc(2026, 1, 1))
      end
      starts = entries.map { |text| parsed(text).first }

      nine = [Time.utc(2026, 5, 12, 14).to_i, Time.utc(2026, 11, 12, 15).to_i]
      assert_equal(nine, starts.map { |event| event["start"] })
      assert_equal ["Pull; by hand, \"all\"", "a\nb"], starts.first.values_at("title", "text")
    end

    def test_the_subscribed_calendar_wants_its_key
      key = q.renew_calendar_key.calendar_token
      clear_cookies
      get "/calendars/#{key}.ics"

      assert_equal [200, true], [last_response.status, last_response.body.start_with?("BEGIN:VCALENDAR")]
      get "/calendars/#{"x" * 24}.ics"

      assert_equal 404, last_response.status
    end

    private

    def anchors = json("/season.json?at=#{q.id}")["anchors"].to_h { |row| [row["key"], row] }

    def parsed(text)
      script = <<~JS
        import('#{ROOT}/node_modules/ical.js/dist/ical.js').then(({ default: ICAL }) => {
          const root = new ICAL.Component(ICAL.parse(require('fs').readFileSync(0, 'utf8')));
          for (const zone of root.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone);
          console.log(JSON.stringify(root.getAllSubcomponents('vevent').map((component) => {
            const event = new ICAL.Event(component), start = event.startDate;
            return { uid: event.uid, title: event.summary, text: event.description, start: start.toUnixTime(),
                     zone: start.zone && start.zone.tzid, day: start.isDate ? start.toString() : null,
                     end_day: event.endDate.isDate ? event.endDate.toString() : null };
          })));
        });
      JS
      out, status = Open3.capture2("node", "-e", script, stdin_data: text)
      raise "node failed" unless status.success?

      JSON.parse(out)
    end
  end
end
