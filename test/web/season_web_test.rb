# frozen_string_literal: true

require "open3"
require "support/web"

module Thistle
  # The season's pages: what people say they saw, files of weather, labels, tasks that wait, the calendar.
  class SeasonWebTest < RackTest
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

      assert_includes last_response.body, "Full leaf seen on 10 May (T. Abara)"
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
      ["/identify/plants/lonicera-maackii", "/identify/\r\nhttps://elsewhere.example/", "https://elsewhere.example/identify/", "/identify/\xFF"].each do |back|
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
      assert_includes last_response.body, "comes before leaf-out, which was seen on 21 April"
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

      assert_includes last_response.body, "say it again if it is so"
      see(kind: "anchor", said: "last_frost", seen_on: "2026-01-20", sure: "true")

      assert_equal "2026-01-20", anchors.fetch("last_frost")["date"]
    end

    def test_a_phase_that_is_seen_moves_the_plant_here_and_nowhere_else
      phases = -> { json("/identify/plants/amur_honeysuckle.json?at=#{q.id}")["phases"].to_h { |span| [span["phase"], span] } }
      before = phases.call
      see(kind: "phase", plant_key: "amur_honeysuckle", said: "flower", began: "true", seen_on: "2026-04-28")
      after = phases.call

      assert_equal "2026-04-28", after["flower"]["from"]
      assert_equal (Date.iso8601(after["ripe_seed"]["from"]) - Date.iso8601(before["ripe_seed"]["from"])).to_i,
                   after["ripe_seed"]["moved_days"]
      other = Store::Property.first(prefix: "B")

      assert_equal 0, json("/identify/plants/amur_honeysuckle.json?at=#{other.id}")["phases"].find { |span| span["phase"] == "flower" }["moved_days"]
    end

    # A look at a patch says how far its plant is, too; taking the look back takes that back.
    def test_a_stage_seen_at_a_patch_counts_here
      moved = -> { json("/identify/plants/amur_honeysuckle.json?at=#{q.id}")["phases"].find { |span| span["phase"] == "ripe_seed" }["moved_days"] }
      send_form(:post, "/survey/patches/#{patch("Q-04").id}/again", seen_on: today.iso8601, stage: "green_seed")

      assert_operator moved.call, :<, 0
      send_form(:post, "/survey/changes/#{Store::Change.undoable.get(:id)}/undo")
      assert_equal 0, moved.call
    end

    def test_a_property_begins_with_broad_values_and_says_so
      send_form(:post, "/records/properties", name: "Gully flat", prefix: "q", units: "metric", texture: "clay")
      assert_includes last_response.body, "is taken by another property"
      assert_includes last_response.body, "or a position is needed"
      send_form(:post, "/records/properties", name: "Gully flat", prefix: "gf", units: "metric", texture: "clay",
                region: "australia", climate_kind: "wet_dry")
      page = get("/season").body

      assert_includes page, "No weather of this ground is known"
      assert_includes page, "Its place is not known"
      assert_includes page, "Wind not known"
      assert_equal [200, "GF"], [get("/").status, Store::Property.order(:id).last.prefix]
    end

    def test_felt_soil_goes_before_the_bucket
      see(kind: "soil", said: "saturated")

      assert_equal "saturated", json("/season/weather.json?at=#{q.id}")["days"].find { |day| day["date"] == today.iso8601 }["soil"]
      assert(json("/season/fit.json?at=#{q.id}")["hours"].first(24).all? { |hour| hour["against"]["pulling"].include?("soil") })
    end

    def test_a_file_of_weather_is_looked_at_taken_and_taken_back
      rows = (Date.new(2023, 1, 1)..today).map { |date| "#{date},#{15 + (12 * Math.sin((date.yday - 110) / 58.1))},#{4 + (12 * Math.sin((date.yday - 110) / 58.1))},#{date.day.even? ? 9 : 0}" }
      send_form(:post, "/season/weather/files", at: q.id,
                file: upload("date,tmax,tmin,rain\n#{rows.join("\n")}", "ridge.csv"))
      page = last_response.location

      assert_equal "simulated", q.feed, "nothing is taken by looking"
      get page

      assert_includes last_response.body, "highest temperature"
      columns = { "date" => nil, "tmax" => "°C", "tmin" => "°C", "rain" => "mm" }.each_with_index.flat_map do |(key, unit), n|
        [[:"column_#{n}", key], [:"unit_#{n}", unit]]
      end.to_h.compact
      send_form(:post, URI(page).path, zone: "local", **columns)

      assert_equal "own", q.feed
      get "/season"

      assert_includes last_response.body,
                      "From 3 years of this property&#39;s own station and 7 years of broad regional values before it."
      assert_includes last_response.body, "No forecast"
      assert_equal ["pulling"], json("/season/fit.json")["fit"].select { |key, stretches| key == "pulling" && stretches.any? }.keys, "pulling needs no wind"
      assert_empty json("/season/fit.json")["fit"]["foliar"], "no wind was measured: no spraying"
      send_form(:delete, URI(page).path)

      assert_equal "broad", q.feed
      get "/season"

      assert_includes last_response.body, "No weather of this ground is known"
    end

    def test_a_file_that_is_no_weather_says_so
      send_form(:post, "/season/weather/files", at: q.id, file: upload("just words", "notes.txt"))

      assert_equal 422, last_response.status
      send_form(:post, "/season/weather/files", at: q.id,
                file: upload("date,tmax,tmin\n03/04/2026,20,10\n04/05/2026,20,10\n", "days.csv"))
      get last_response.location

      assert_includes last_response.body, "write them as 2026-05-12"
      send_form(:post, "/season/weather", at: q.id, feed: "own", texture: "loam")

      assert_includes last_response.body, "has no days yet"
      send_form(:post, "/season/weather", at: q.id, feed: "simulated", texture: "loam", timezone: "Middle/Earth",
                station_latitude: "40")

      assert_includes last_response.body, "is not a clock of the tz database"
      assert_includes last_response.body, "is needed beside the other"
    end

    # Hopkins' law moves the marks where the station stands elsewhere: a degree south and 122 m lower is eight days.
    def test_a_station_that_stands_elsewhere
      before = Date.iso8601(anchors["bud_swell"]["date"])
      send_form(:post, "/season/weather", at: q.id, feed: "simulated", texture: "loam", elevation: "243.84",
                station_name: "the valley",
                                          station_latitude: (q.latitude - 1).to_s, station_longitude: q.longitude.to_s,
                                          station_elevation: "121.92")

      assert_equal before + 8, Date.iso8601(anchors["bud_swell"]["date"])
      assert_includes get("/season").body, "spring marks are moved 8 days later by Hopkins&#39; law"
      assert_includes last_response.body, "latitude +4.0, longitude +0.0, elevation +4.0"
    end

    # A label's calmer limit shuts hours that the planning value leaves open, on the fit page and in the rules.
    def test_a_label_goes_before_the_planning_values
      open = json("/season/fit.json?at=#{q.id}")["fit"]["foliar"].size
      send_form(:post, "/season/labels", at: q.id, kind: "foliar", wind_low: "4", wind_high: "6")

      assert_operator json("/season/fit.json")["fit"]["foliar"].size, :<, open
      assert_equal({ foliar: { wind_low: 4.0, wind_high: 6.0 } }, q.label_limits)
      send_form(:post, "/season/labels", at: q.id, kind: "foliar", wind_low: "9", wind_high: "6")

      assert_includes last_response.body, "is below the lowest"
      send_form(:post, "/season/labels", at: q.id, kind: "foliar")

      assert_nil q.label_limits
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

    def test_cleaning_is_asked_weekly_in_seed_season
      Store::Setting.write("today", "2026-06-20")
      get "/"

      assert_includes last_response.body, "Seed is ripe on garlic mustard"
      send_form(:post, "/work/cleanings", property: q.id)

      assert_equal Date.new(2026, 6, 20), Store::Cleaning.last_days.fetch(q.id)
      refute_includes Web::Today::Board.new(Store::Property.all, Date.new(2026, 6, 26)).hygiene.keys.map(&:prefix), "Q"
      assert_includes Web::Today::Board.new(Store::Property.all, Date.new(2026, 6, 27)).hygiene.keys.map(&:prefix), "Q"
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

      assert_equal [Time.utc(2026, 5, 12, 14).to_i, Time.utc(2026, 11, 12, 15).to_i], starts.map do |event|
        event["start"]
      end
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
            return { uid: event.uid, title: event.summary, text: event.description, start: start.toUnixTime(), zone: start.zone && start.zone.tzid,
                     day: start.isDate ? start.toString() : null, end_day: event.endDate.isDate ? event.endDate.toString() : null };
          })));
        });
      JS
      out, status = Open3.capture2("node", "-e", script, stdin_data: text)
      raise "node failed" unless status.success?

      JSON.parse(out)
    end
  end
end
