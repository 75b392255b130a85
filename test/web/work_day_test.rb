# frozen_string_literal: true

require "chunky_png"
require "nokogiri"
require "support/web"

module Thistle
  # People, and a day from who comes to what came of it.
  class WebWorkDayTest < RackTest
    LEAD = { name: "B. Sands", "roles[]": %w[crew_lead applicator], licence_number: "A-77",
             licence_category: "natural areas", licence_expires_on: "2027-03-01", emergency: "sister, 555-0100" }.freeze
    DAY = { held_on: "2026-05-16", starts_at: "09:00", ends_at: "14:00", hands: "6", meet: "Gravel lot",
            help: "Clinic, 12 minutes" }.freeze

    def person(name) = Store::Person.first(name:)
    def day = Store::WorkDay.last
    def answer = day.answered
    def herbicide = answer[:turns].select { |turn| Core::Knowledge.shipped.removal(turn[:method]).herbicide? }

    def add(name, *roles, **more)
      send_form(:post, "/work/people", name:, "roles[]": roles, **more)
      person(name)
    end

    def propose(**more) = send_form(:post, "/work/days", **DAY, **more)

    def tap(patch, kind, key: SecureRandom.uuid, **more)
      send_form(:post, "/work/days/#{day.id}/taps", patch: patch.id, kind:, key:, **more)
    end

    def card(patch)
      json("/work/days/#{day.id}/field.json")["cards"].find { |one| one["patch"] == patch.code }
    end

    def test_people_and_their_names
      add("V. Holm", "applicator")

      assert_said "without it nobody is planned at the herbicide", 'value="V. Holm"'
      send_form(:post, "/work/people", **LEAD)
      add("B. Sand", "volunteer")

      assert_said "is much like B. Sands"
      add("B. Sand", "volunteer", another: "true", "cannot[]": %w[thorns])

      assert_equal [%w[volunteer], %w[thorns]], [person("B. Sand").roles_kept, person("B. Sand").cannot_kept]
      get "/work/people"

      assert_said "Licensed until 1 March 2027", "Pond crew", "Not: thorns and sap"
      refute_includes last_response.body, "555-0100"
      send_form(:post, "/work/people/names", person: person("B. Sands").id, name: "Pond crew")
      get "/work/people"

      refute_includes last_response.body, "<h3>Pond crew</h3>"
      assert_equal 4, person("B. Sands").records.count
      assert_equal 0, person("B. Sand").records.count, "whose name is in the other's"
      assert_equal 0, json("/work/people.json").find { |one| one["name"] == "B. Sands" }["days_this_year"]
      id = person("B. Sands").id
      2.times { send_form(:put, "/work/people/#{id}", **LEAD, name: "Bo Sands", another: "true", lock_version: "0") }

      assert_said "Someone else changed this person meanwhile"
      send_form(:delete, "/work/people/#{person("B. Sand").id}")

      refute_nil person("B. Sand").deleted_at
      send_form(:post, "/work/people/#{person("B. Sand").id}/undo")

      assert_nil person("B. Sand").deleted_at
    end

    # The list knows the licence, so the record does; who was there stands in the story and can be corrected.
    def test_records_name_people
      send_form(:post, "/work/people", **LEAD)
      work = { patch: patch("Q-05").id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2", hours: "1",
               stems_done: "9", active_key: "glyphosate_ipa", product: "50", mix: "100", applicator: "b. sands" }
      send_form(:post, "/work/treatments", **work, "who[]": ["", "999"])

      assert_said "are not all on the list"
      send_form(:post, "/work/treatments", **work, "who[]": ["", person("B. Sands").id.to_s], people: "two scouts")
      kept = Store::Treatment.last

      assert_equal ["A-77", "natural areas", Date.new(2027, 3, 1)],
                   kept.values.values_at(:licence_number, :licence_category, :licence_expires_on)
      assert_equal "B. Sands, two scouts", kept.who
      get "/survey/patches/#{patch("Q-05").id}"

      assert_said "(B. Sands, two scouts)"
    end

    def test_a_day_that_cannot_be
      { { hands: "0" } => "nobody comes", { held_on: "2026-05-01" } => "is past: record the work",
        { starts_at: "14:00", ends_at: "09:00" } => "is not after the beginning",
        { starts_at: "22:00", ends_at: "23:30" } => "leaves no light to work by",
        { hands: "61" } => "is", { "who[]": ["77"] } => "are not all on the list" }.each do |wrong, words|
        propose(**wrong)

        assert_equal 422, last_response.status, words
        assert_said words, 'value="Gravel lot"'
      end
      assert_equal 1, Store::WorkDay.count
    end

    # A licence that ends before the day puts nobody at the herbicide; one that holds puts one at each.
    def test_nobody_unlicensed_at_the_herbicide
      send_form(:post, "/work/people", **LEAD, licence_expires_on: "2026-05-15")
      propose("who[]": [person("B. Sands").id])

      assert_empty herbicide
      assert(answer[:left_out].any? { |out| out[:why].to_s.include?("a licensed applicator") } || answer[:turns].any?)
      person("B. Sands").update(licence_expires_on: Date.new(2026, 5, 16))
      send_form(:post, "/work/days/#{day.id}/propose")

      refute_empty herbicide
      assert(herbicide.all? { |turn| turn[:people].any? { |one| one[:name] == "B. Sands" } })
      answer[:turns].group_by { |turn| turn[:block] }.each_value do |here|
        rounds = here.group_by { |turn| turn[:people].map { |one| one[:id].to_s }.sort }.keys

        assert_equal rounds.flatten.uniq.size, rounds.flatten.size, "in two places at once"
      end
    end

    def test_a_day_is_held_left_out_printed_and_called_off
      add("K. Moor", "steward", emergency: "brother, 555-0199")
      propose("who[]": [person("K. Moor").id], have_blade: "2")
      code, id = answer[:turns].first.values_at(:code, :patch)
      send_form(:post, "/work/days/#{day.id}/wishes", patch: id, wish: "ban")

      refute_includes answer[:turns].map { |turn| turn[:code] }, code
      send_form(:post, "/work/days/#{day.id}/wishes", patch: id, wish: "pin", block: "1")

      assert_includes answer[:turns].select { |turn| turn[:block] == 1 }.map { |turn| turn[:code] }, code
      get "/work/days/#{day.id}"

      assert_said code, "The walk:", "past years", "Hold"
      get "/work/days/#{day.id}/brief"

      assert_said "Clinic, 12 minutes", "brother, 555-0199", "Leaf litter goes back", "What is done",
                  "Leave these standing"
      propose

      follow_redirect!

      assert_said "Another is planned here on that date.", "is planned for 16 May 2026, too"
      Store::Patch[id].update(state: "closed")
      first = Store::WorkDay.order(:id).first
      get "/work/days/#{first.id}"

      assert_said "wants no work any more"
      2.times { send_form(:put, "/work/days/#{first.id}", **DAY, hands: "4", lock_version: first.lock_version.to_s) }

      assert_said "Someone else changed this day meanwhile"
      send_form(:delete, "/work/days/#{first.id}")

      assert_equal 404, get("/work/days/#{first.id}").status
      send_form(:post, "/work/days/#{first.id}/undo")

      assert_equal 200, get("/work/days/#{first.id}").status
    end

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

      assert_said "It was begun and never stopped"
      tap(one, "stop", at: now - 1_800_000)

      assert_in_delta 1.0, card(one)["hours"], 0.01
      tap(one, "start", at: now + 400_000_000)

      assert_in_delta Time.now.to_f, Store::Tap.last.at.to_f, 5
      tap(one, "stems", what: "giant", amount: "1")

      assert_equal 422, last_response.status
      send_form(:post, "/work/days/#{day.id}/untap", patch: one.id)

      refute card(one)["running"]
      get "/work/days/#{day.id}/field/#{one.id}?one=30&other=25&both=20"

      assert_said "Likely <b>2</b> more"
      get "/work/days/#{day.id}/field/#{one.id}?one=3&other=2&both=9"

      assert_said "is more than either of them saw"
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

      assert_said "only cut, not treated", 'value="cut_only" selected'
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

    # Garlic mustard is in seed in mid-June: a patch of it that lies across the way is gone round.
    def test_a_way_through_seed_is_gone_round
      Store::Setting.write("today", "2026-06-14")
      propose(held_on: "2026-06-16")
      board = Web::Work::DayBoard.new(day, Date.new(2026, 6, 14))
      (west, south), (east, north) = board.walk.first(2)
      ring = [[0, 0], [1, 0], [1, 1], [0, 1], [0, 0]].map do |x, y|
        [((west + east) / 2) + (0.0003 * (x - 0.5)), ((south + north) / 2) + (0.0003 * (y - 0.5))]
      end
      across = Store::Patch.new(property_id: day.property_id, code: "Q-98", plant_key: "garlic_mustard",
                                state: "standing", seen_on: Date.new(2026, 6, 1))
      across.shape = Core::Survey::Shape.new("type" => "Polygon", "coordinates" => [ring])
      across.save
      get "/work/days/#{day.id}"

      assert_said "leads through <b>Q-98</b>, garlic mustard in seed: go round."
    end

    # Of a picture only the picture stays; before and after stand side by side; one can be taken back.
    def test_before_and_after
      propose
      patch = Store::Patch[answer[:walk].first]
      picture = ->(shade) { ChunkyPNG::Image.new(6, 4, ChunkyPNG::Color.rgb(shade, shade, shade)).to_blob }
      { "before" => 10, "after" => 200 }.each do |moment, shade|
        send_form(:post, "/work/pictures", patch: patch.id, day: day.id, moment:, file: upload(picture[shade], "p.png"))

        assert_equal 303, last_response.status
      end
      before, after = Store::Picture.pairs(patch).first

      assert_equal %w[before after], [before, after].map(&:moment)
      assert_equal picture[200], get("/work/pictures/#{after.id}").body
      get "/survey/patches/#{patch.id}?first=#{after.id}&second=x"

      assert_said "data-slid", "after the work, 12 May 2026"
      send_form(:post, "/work/pictures", patch: patch.id, moment: "after", file: upload("no picture", "p.png"))

      assert_equal 422, last_response.status
      assert_equal 422, send_form(:post, "/work/pictures", patch: patch.id, moment: "after").status
      send_form(:post, "/work/pictures/#{after.id}/drop")

      assert_equal [[before.id, nil]], Store::Picture.pairs(patch).map { |pair| pair.map { |one| one&.id } }
      get "/survey/patches/#{patch.id}"

      assert_said "before the work, 12 May 2026"
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

    # One judge of a day, and a crew that may know better: a patch is held against the hours with a reason, never where
    # a label decides.
    def test_a_patch_is_held_against_the_hours_with_a_reason
      propose
      jobs = -> { Store::DayJobs.new(Store::WorkDay[day.id], Testing::TODAY) }
      entry = jobs.call.entries.find { |one| !one.removal.herbicide? && one.job.fit != [[0, 24]] }
      id = entry.patch.id
      wish = { patch: id, wish: "pin" }
      send_form(:post, "/work/days/#{day.id}/wishes", **wish, why: " ")
      follow_redirect!

      assert_said "Say why #{entry.patch.code} is done at hours that are not fit"
      send_form(:post, "/work/days/#{day.id}/wishes", **wish, why: "Sand: it drains at once")
      fits = jobs.call.entries.select { |one| one.patch.id == id }.group_by { |one| one.removal.herbicide? }

      assert(fits[false].all? { |one| one.job.fit == [[0, 24]] })
      assert(fits.fetch(true, []).none? { |one| one.job.fit == [[0, 24]] })
      get "/work/days/#{day.id}"

      assert_said "Held against the hours of the day:", "Sand: it drains at once"
      send_form(:post, "/work/days/#{day.id}/wishes", patch: id, wish: "free")

      assert_empty Store::WorkDay[day.id].despite_kept
    end

    def test_kit
      Store::KitItem.dataset.delete
      send_form(:post, "/work/kit", kind: "saw", name: "Folding saws", owned: "2", broken: "3")

      assert_said "is less than what is broken and lent", 'value="Folding saws"'
      send_form(:post, "/work/kit", kind: "saw", name: "Folding saws", owned: "3", broken: "1", lent: "1",
                                    lent_to: "park")
      item = Store::KitItem.last

      assert_equal({ "saw" => 1 }, Store::KitItem.usable)
      assert_includes json("/work/kit.json").first["wants"], "test it before the season"
      send_form(:post, "/work/kit/#{item.id}/tested")

      assert_empty json("/work/kit.json").first["wants"]
      send_form(:put, "/work/kit/#{item.id}", kind: "saw", name: "Saws", owned: "4", sharpen_on: "2026-05-01")

      assert_equal ["sharpen it", "test it before the season"].sort, json("/work/kit.json").first["wants"].sort
      send_form(:delete, "/work/kit/#{item.id}")

      assert_empty Store::KitItem.usable
      send_form(:post, "/work/kit/#{item.id}/undo")

      assert_equal({ "saw" => 4 }, Store::KitItem.usable)
    end

    # Five records of work that took three times what is planned: the hours of every room follow, and say so.
    def test_own_pace_reaches_decide_and_the_course
      Store::Treatment.where(method_key: "lever_pull").delete
      path = "/decide.json?patch=#{patch("Q-04").id}&plants=200&stems=200&seedlings=0&area=2000" # whatever is left
      hours = -> { json(path)["verdicts"].find { |one| one["method"] == "lever_pull" } }
      before = hours.call

      assert_nil before["own_pace"]
      minutes = Core::Knowledge.shipped.removal("lever_pull").task.at("pencil")
      5.times do
        send_form(:post, "/work/treatments", patch: patch("Q-04").id, method_key: "lever_pull", done_on: "2026-05-12",
                                             crew_size: "2", hours: (3 * 20 * minutes / 120).round(3).to_s,
                                             plants_done: "20")
      end
      after = hours.call

      assert_equal 5, after["own_pace"]["records"]
      assert_operator after["own_pace"]["times"], :>, 1.5
      assert_in_delta after["own_pace"]["times"] * before["crew_hours"], after["crew_hours"], 0.02 * after["crew_hours"]
      get "/work/people"

      assert_said "How long you take"
    end

    # 20 wrists of a kind that are cut, and 100 m² under 10 cm: as core has it (crew_test), through the page.
    def test_hauling_mulch_and_water
      found = json("/work/haul.json?at=#{patch("Q-05").property_id}&stems_wrist=20&distance=120&fruit=true&area=100" \
                   "&depth=10&depths=10;6;8,5")

      assert_equal [400.0, 7, 1], found["haul"].values_at("kg", "loads", "piles_possible")
      assert_in_delta 10, found["chips_m3"]
      assert_equal [2], found["sampled"]["thin"]
      assert_match(/is 0 to 5000 m/, json("/work/haul.json?stems_wrist=2&distance=90000")["errors"]["distance"])
      get "/work/haul?patch=#{patch("Q-04").id}"

      assert_said 'name="stems_pencil" type="text" value="210"'
      water = json("/work/water.json?depth=1&clarity=2&water=25")

      assert_equal "snorkel", water["way"]
      assert_operator water["hours"].size, :>=, 3
      assert_equal 422, get("/work/water.json?depth=0&clarity=1").status
    end

    def test_boots_and_tools_are_cleaned_in_and_out
      propose
      send_form(:post, "/work/cleanings", property: day.property_id, day: day.id, way: "out", boots: "true",
                                          vehicle: "true")
      follow_redirect!

      assert_said "on the way out: boots and clothing, vehicles and decks"
      get "/"

      assert_said "Work day"
      assert_includes get("/season/calendar.ics?at=#{day.property_id}").body, "SUMMARY:Work day\\, 09:00 to 14:00"
    end

    private

    # On another day.
    def travel(date)
      before = Store::Setting.read("today")
      Store::Setting.write("today", date.iso8601)
      yield
    ensure
      Store::Setting.write("today", before)
    end
  end
end
