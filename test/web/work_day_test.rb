# frozen_string_literal: true

require "support/web"
require "support/work_days"

module Thistle
  # A work day: who comes, what is proposed, held, left out, printed.
  class WebWorkDayTest < RackTest
    include WorkDays

    def test_a_day_that_cannot_be
      before = Store::WorkDay.count
      { { hands: "0" } => "nobody comes", { held_on: "2026-05-01" } => "is past: record the work",
        { starts_at: "14:00", ends_at: "09:00" } => "is not after the beginning",
        { starts_at: "22:00", ends_at: "23:30" } => "is outside daylight",
        { hands: "61" } => "is", { "who[]": ["77"] } => "are not all on the list" }.each do |wrong, words|
        propose(**wrong)

        assert_equal 422, last_response.status, words
        assert_said words, 'value="Gravel lot"'
      end
      assert_equal before, Store::WorkDay.count
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

      assert_said code, "The walk, in the order of the day", "past years", "Hold", "To drink"
      order = answer[:walk].map do |one|
        answer[:turns].select do |turn|
          turn[:patch] == one
        end.map { |turn| turn[:block] }.min
      end

      assert_equal order.sort, order, "stops are worked in the order of the walk"
      get "/work/days/#{day.id}/brief"

      assert_said "Clinic, 12 minutes", "brother, 555-0199", "Leaf litter goes back", "What is done",
                  "Leave these standing"
      propose

      follow_redirect!

      assert_said "Another is planned here on that date.", "is planned for May 16, 2026, too"
      Store::Patch[id].update(state: "closed")
      first = Store::WorkDay.order(:id).first
      get "/work/days/#{first.id}"

      assert_said "needs no work now"
      send_form(:post, "/work/days/#{first.id}/minutes", patch: answer[:walk].first, minutes_cut: "1,5")

      assert_equal 303, last_response.status
      assert_equal({ "cut" => 1.5 }, first.refresh.minutes_kept.values.first)
      send_form(:post, "/work/days/#{first.id}/minutes", patch: answer[:walk].first, minutes_cut: "never")
      follow_redirect!

      assert_said "is no number of minutes"
      send_form(:put, "/work/days/#{first.id}", **DAY, hands: "4", drink: "2000", lock_version: first.lock_version.to_s)

      assert_said "more than anybody may drink in an hour"
      send_form(:put, "/work/days/#{first.id}", **DAY, hands: "4", felt: "33", wbgt: "29.5", drink: "900",
                                                       lock_version: first.lock_version.to_s)
      get "/work/days/#{first.id}"

      assert_said "Feels like 33 °C", "30 minutes of work, 30 of rest", "900 mL an hour for each"
      first = first.refresh
      2.times { send_form(:put, "/work/days/#{first.id}", **DAY, hands: "4", lock_version: first.lock_version.to_s) }

      assert_said "Someone else changed this day meanwhile"
      send_form(:delete, "/work/days/#{first.id}")

      assert_equal 404, get("/work/days/#{first.id}").status
      send_form(:post, "/work/days/#{first.id}/undo")

      assert_equal 200, get("/work/days/#{first.id}").status
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
  end
end
