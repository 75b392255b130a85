# frozen_string_literal: true

require "support/web"

module Thistle
  # One patch by hand through every room: mapped at 320 stems, 300 treated, checked with one missed and 25 seedlings,
  # then redrawn, split and merged. What the check found is what every page plans for, and each says which record.
  class WebStandingTest < RackTest
    RING = [[-91.4, 38.0], [-91.3995, 38.0], [-91.3995, 38.0004], [-91.4, 38.0004], [-91.4, 38.0]].freeze

    def id = @patch.id
    def there = json("/survey/patches/#{id}.json")["stands"]
    def area(ring) = JSON.generate(type: "Polygon", coordinates: [ring])

    def hours(method, more = "")
      json("/decide.json?patch=#{id}#{more}")["verdicts"].find { |one| one["method"] == method }["crew_hours"]
    end

    def mapped
      send_form :post, "/survey/patches", geometry: area(RING), seen_on: "2026-04-01", plant_key: "amur_honeysuckle",
                stems: "320", stem_size: "thumb", cover_class: "4", sure: "yes"
      @patch = Store::Patch.order(:id).last
    end

    def worked
      send_form :post, "/work/treatments", patch: id, method_key: "lever_pull", done_on: "2026-04-10", crew_size: "4",
                hours: "6", stems_done: "300"
    end

    def checked(on = "2026-05-10", **found)
      send_form :post, "/recheck/checks", patch: id, checked_on: on, resprouts: "0", missed: "1", seedlings: "25",
                cover_class: "1", **found
    end

    def test_one_patch_through_all_rooms
      mapped

      assert_equal [320, "mapped"], there.values_at("stems", "by")
      worked

      assert_equal [65, true, "2026-04-10"], there.values_at("stems", "estimated", "worked_on")
      checked

      assert_equal [1, 25, false, "check"], there.values_at("stems", "seedlings", "estimated", "by")
      every_room("1 stem and 25 seedlings", "by the check of May 10, 2026", stems: 1, seedlings: 25)
    end

    def test_redrawn_split_and_merged
      mapped
      worked
      checked(resprouts: "8", seedlings: "60")
      wider = RING.map { |lon, lat| [lon, lat > 38 ? 38.0005 : lat] }
      send_form :post, "/survey/patches/#{id}/again", seen_on: "2026-05-11", geometry: area(wider)

      assert_equal [9, 60, "check"], there.values_at("stems", "seedlings", "by")
      send_form :post, "/survey/patches/#{id}/split", seen_on: "2026-05-12",
                geometry: '{"type":"LineString","coordinates":[[-91.3997,37.999],[-91.3997,38.001]]}'
      part = Store::Patch.order(:id).last

      assert_equal [5, 36, true, "check"], there.values_at("stems", "seedlings", "estimated", "by")
      other = json("/survey/patches/#{part.id}.json")["stands"]

      assert_equal [4, 24, "check"], other.values_at("stems", "seedlings", "by")
      source = "by the check of May 10, 2026, by its share of the ground"
      every_room("about 5 stems and 36 seedlings", source, stems: 5, seedlings: 36)
      send_form :post, "/survey/patches/#{id}/merge", seen_on: "2026-05-12", other: part.id

      assert_equal [9, 60, "check"], there.values_at("stems", "seedlings", "by")
      send_form :post, "/survey/changes/#{Store::Change.undoable.first.id}/undo"

      assert_equal [5, 36], there.values_at("stems", "seedlings")
    end

    # The same records in another order of entry; a check put right; who types another number is believed.
    def test_order_of_entry_corrections_and_what_is_typed
      mapped
      checked
      worked

      assert_equal [1, 25, "check"], there.values_at("stems", "seedlings", "by")
      checked("2026-05-02", missed: "7", seedlings: "3")

      assert_equal [1, 25], there.values_at("stems", "seedlings"), "an earlier check says nothing of today"
      look = Store::Check.where(patch_id: id).order(:checked_on).last
      look.correct(version: 0, person: "Ines", reason: "three", missed: 3)

      assert_equal 3, there["stems"]
      look.take_back(version: 1, person: "Ines", reason: "another patch")

      assert_equal [7, 3], there.values_at("stems", "seedlings")

      assert_operator hours("cut_stump", "&stems=70&seedlings=0"), :>, hours("cut_stump") * 5
      get "/decide?patch=#{id}&stems=70"

      assert_said "70 stems, 3 seedlings, as you typed"
    end

    # Forms of two numbers, and of a look again: what was counted last.
    def test_a_look_again_counts_anew
      mapped
      worked
      send_form :post, "/survey/patches/#{id}/again", seen_on: "2026-05-11", stems_thumb: "12"

      assert_equal [12, "observation", false], there.values_at("stems", "by", "estimated")
      get "/decide?patch=#{id}"

      assert_said "12 stems</b> as seen on May 11, 2026"
      typed = @patch.refresh.values.slice(:geometry, :plant_key, :stem_size, :lock_version).transform_values(&:to_s)
      send_form :put, "/survey/patches/#{id}", **typed, seen_on: "2026-04-01", stems: "9"

      assert_equal [9, "observation", "2026-05-12"], there.values_at("stems", "by", "since")
    end

    private

    # Every page that plans for it says how much and by which record, and counts with it.
    def every_room(amount, source, stems:, seedlings:)
      get "/survey/patches/#{id}"

      assert_said "#{amount}</b> #{source}"
      get "/decide?patch=#{id}"

      assert_said "#{amount}</b> #{source}"
      facts = @patch.refresh.facts(Testing::TODAY)

      assert_equal [stems, seedlings], [facts.stems, facts.seedlings]

      assert_operator hours("lever_pull"), :<, 2, "not the hours of 320 stems"
      get "/work?patch=#{id}"

      assert_said 'name="stems_done"', "placeholder=\"about #{stems}\"", "#{amount}</b> #{source}"
      refute_includes last_response.body, 'value="320"'
      get "/mix?patch=#{id}&method=cut_stump"

      assert_said "#{amount}</b> #{source}"
      assert_match(/name="stems"[^>]*value="#{stems}"/, last_response.body)
      get "/recheck/patches/#{id}"

      assert_said "#{amount}</b> #{source}"
      get "/replant/first?patch=#{id}"

      assert_said "#{amount}</b> #{source}"
      get "/"

      assert_said "Treat again: #{amount} #{source}"
      ranked = Store::Ranking.new(@patch.property, Testing::TODAY).facts[id]

      assert_equal [stems, seedlings], [ranked.stems, ranked.seedlings]
      assert_equal stems, Store::PatchOutlook.new(@patch, Testing::TODAY).now
    end
  end
end
