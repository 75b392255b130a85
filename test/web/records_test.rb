# frozen_string_literal: true

require "support/web"

module Thistle
  # Records put right, taken back and brought back; properties begun.
  class WebRecordsTest < RackTest
    def db = Sequel::Model.db
    def today = Testing::TODAY
    # State and visits of a patch, without their ids.
    def told = patch("Q-06").then { |one| [one.state, one.tasks.map { |task| task.values.except(:id) }] }

    def test_a_check_is_corrected_and_both_versions_stay
      check = patch("Q-07").checks.last
      path = "/records/check/#{check.id}"
      typed = { checked_on: check.checked_on.iso8601, resprouts: "0", missed: "0", seedlings: "0",
                note: "A third of last year." }
      send_form :post, path, **typed, version: "0", person: "J. Finch"

      assert_equal [422, "regrowing"], [last_response.status, patch("Q-07").state]
      assert_includes last_response.body, "Why is kept with the record: say why"
      assert_includes last_response.body, "J. Finch"
      send_form :post, path, **typed, version: "0", person: "J. Finch", reason: "Counted on the wrong sheet"

      assert_equal 303, last_response.status
      assert_equal ["quiet", []], [patch("Q-07").state,
                                   patch("Q-07").open_tasks.select { |task| task.kind == "treat" }.map(&:reason)]
      get path

      assert_match(%r{<s>150</s></td><td>0}, last_response.body)
      assert_includes last_response.body, "Counted on the wrong sheet"
      send_form :post, path, **typed, missed: "2", version: "0", person: "M. Oakes", reason: "Two more"

      assert_equal [409, 0], [last_response.status, check.refresh.missed], "whoever saw the older version is told"
      assert_includes last_response.body, "Someone else corrected it"
    end

    def test_work_is_taken_back_and_brought_back_with_all_that_followed
      before = told
      work = patch("Q-06").treatments.last
      send_form :post, "/records/treatment/#{work.id}/take-back", version: "0", person: "T. Abara",
                reason: "It was Q-05"

      assert_equal ["standing", 0], [patch("Q-06").state, patch("Q-06").open_tasks.size]
      assert_includes get("/survey/patches/#{patch("Q-06").id}").body, "1 record taken back"
      refute_includes json("/records.json")["rows"].map { |row| [row["patch"], row["kind"]] }, %w[Q-06 work]
      send_form :post, "/records/treatment/#{work.id}/take-back", version: "1", person: "T. Abara", reason: "Again"

      assert_equal 409, last_response.status
      send_form :post, "/records/treatment/#{work.id}/bring-back", version: "1", person: "T. Abara"

      assert_equal before, told
      assert_equal %w[taken_back brought_back], work.amendments.map(&:act)
    end

    def test_a_sight_names_the_patch_until_it_is_corrected
      seen = patch("Q-05").observations.first
      form = Web::Survey::Forms::Observation.of(seen, Core::Units.new, today)
      send_form :post, "/records/observation/#{seen.id}", **form.raw, plant_key: "tatarian_honeysuckle", version: "0",
                person: "J. Finch", reason: "The flowers"

      assert_equal "tatarian_honeysuckle", patch("Q-05").plant_key
      send_form :post, "/records/observation/#{seen.id}/take-back", version: "1", person: "J. Finch",
                reason: "Not there"

      assert_equal "hit", patch("Q-05").state, "it was treated, whatever it is"
    end

    def test_a_look_again_taken_back_gives_its_figures_back
      one = patch("Q-09")
      before = one.values.slice(:cover_percent, :cover_class, :height_cm)
      send_form :post, "/survey/patches/#{one.id}/again", seen_on: today.iso8601, cover_percent: "64", height: "90"

      assert_in_delta 64, patch("Q-09").cover_percent
      seen = patch("Q-09").observations.last
      form = Web::Survey::Forms::Observation.of(seen, Core::Units.new, today)
      send_form :post, "/records/observation/#{seen.id}", **form.raw, cover_percent: "46", version: "0",
                person: "J. Finch", reason: "Turned round"

      assert_in_delta 46, patch("Q-09").cover_percent
      send_form :post, "/records/observation/#{seen.id}/take-back", version: "1", person: "J. Finch",
                reason: "Another patch"

      assert_equal before, patch("Q-09").values.slice(:cover_percent, :cover_class, :height_cm)
    end

    def test_plantings_and_plans_can_be_put_right
      planting = Store::Planting.create(patch_id: patch("Q-06").id, native_key: "christmas_fern", area_m2: 20.0,
                                        plugs: 40, from_on: today, to_on: today + 30)
      send_form :post, "/records/planting/#{planting.id}", area: "30", plugs: "60", from_on: today.iso8601,
                to_on: (today - 1).iso8601, version: "0", person: "J. Finch", reason: "More came"

      assert_includes last_response.body, "To is before it begins"
      send_form :post, "/records/planting/#{planting.id}", area: "30", plugs: "60", from_on: today.iso8601,
                to_on: (today + 30).iso8601, done_on: today.iso8601, version: "0", person: "J. Finch",
                       reason: "More came"

      assert_equal [60, today], planting.refresh.values.values_at(:plugs, :done_on)
      plan = Store::SeasonPlan.create(property_id: patch("Q-06").property_id, asked: "{}", answer: "{}",
                                      status: "solved")
      send_form :post, "/records/plan/#{plan.id}/take-back", version: "0", person: "J. Finch", reason: "No crew"

      refute_equal plan.id, Store::SeasonPlan.current(patch("Q-06").property)&.id
      %w[/records/plan/0 /records/nothing/1 /records/check/x].each { |path| assert_equal 404, get(path).status, path }
    end

    def test_the_first_page_begins_a_property
      db[:memberships].delete
      db[:land_plans].delete
      db[:properties].delete
      get "/"
      follow_redirect!

      assert_includes last_response.body, "Your first property"
      send_form :post, "/records/properties", name: "New ground", prefix: "N", units: "metric", texture: "loam",
                latitude: "", longitude: ""

      assert_equal 422, last_response.status
      send_form :post, "/records/properties", name: "New ground", prefix: "N", units: "metric", texture: "loam",
                region: "na_midwest"

      assert_equal [303, 200], [last_response.status, get("/").status]
    end
  end
end
