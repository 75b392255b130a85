# frozen_string_literal: true

require "chunky_png"
require "support/web"
require "support/work_days"

module Thistle
  # People, tools, pictures and what work leaves to haul.
  class WebWorkPeopleTest < RackTest
    include WorkDays

    def test_people_and_their_names
      add("V. Holm", "applicator")

      assert_said "without it nobody is planned at the herbicide", 'value="V. Holm"'
      send_form(:post, "/work/people", **LEAD)
      add("B. Sand", "volunteer")

      assert_said "is much like B. Sands"
      add("B. Sand", "volunteer", another: "true", "cannot[]": %w[thorns])

      assert_equal [%w[volunteer], %w[thorns]], [person("B. Sand").roles_kept, person("B. Sand").cannot_kept]
      get "/work/people"

      assert_said "Licensed until March 1, 2027", "Pond crew", "Not: thorns and sap"
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

      assert_said "data-slid", "after the work, May 12, 2026"
      send_form(:post, "/work/pictures", patch: patch.id, moment: "after", file: upload("no picture", "p.png"))

      assert_equal 422, last_response.status
      assert_equal 422, send_form(:post, "/work/pictures", patch: patch.id, moment: "after").status
      send_form(:post, "/work/pictures/#{after.id}/drop")

      assert_equal [[before.id, nil]], Store::Picture.pairs(patch).map { |pair| pair.map { |one| one&.id } }
      get "/survey/patches/#{patch.id}"

      assert_said "before the work, May 12, 2026"
    end

    # 20 wrists of a kind that are cut, and 100 m² under 10 cm: as core has it (crew_test), through the page.
    def test_hauling_mulch_and_water
      found = json("/work/haul.json?at=#{patch("Q-05").property_id}&stems_wrist=20&distance=120&fruit=true&area=100" \
                   "&depth=10&depths=10;6;8,5")

      assert_equal [440.0, 9, 3], found["haul"].values_at("kg", "loads", "piles_possible")
      assert_equal 3, json("/work/haul.json?stems_wrist=20&trailer=200&trailer_bulk=5")["haul"]["trips"]
      assert_in_delta 500, json("/work/haul.json?pulled=20&kind=floating")["haul"]["kg"]
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
  end
end
