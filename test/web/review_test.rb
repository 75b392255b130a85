# frozen_string_literal: true

require "support/web"

module Thistle
  # What years of records say: the review, a patch's life, where its seedlings come from.
  class WebReviewTest < RackTest
    def today = Testing::TODAY

    # Every figure from the records themselves.
    def test_the_review_of_a_year
      q = Store::Property.first(prefix: "Q")
      works = Store::Treatment.all.select { |one| one.patch.property_id == q.id && one.done_on.year == 2025 }
      answer = json("/recheck/review.json?year=2025")

      assert_in_delta works.sum { |one| one.hours * one.crew_size }, answer["hours"], 1e-6
      assert_equal [works.size, works.map(&:patch_id).uniq.size], answer.values_at("treatments", "patches")
      hack = answer["methods"].find { |one| one["method"] == "hack_and_squirt" }

      assert_equal [40, 2, "as_planned"], hack.values_at("treated", "alive", "verdict")
      missed = Store::Task.where(patch_id: q.patches_dataset.select(:id)).all.select do |task|
        task.due_on.year == 2025 && (task.done_on.nil? || task.done_on > task.due_on + 14)
      end

      assert_equal missed.size, answer["visits_missed"]
      assert_equal ["Q-02"], answer["grew"].map { |one| one["patch"] }
      get "/recheck/review?year=2025"

      assert_said "The year 2025 on", "Plan the season", "Where the hours went",
                  "/records/treatment/#{hack["treatments"].first}"
      assert_equal 2026, json("/recheck/review.json?year=x")["year"]
    end

    # A method that failed twice and a year in which hardly anything died.
    def test_what_to_change_is_named
      2.times do |n|
        on = Date.new(2025, 6, 1) + (40 * n)
        work = Store::Treatment.create(patch_id: patch("Q-04").id, done_on: on, crew_size: 1, hours: 3.0,
                                       method_key: "lever_pull", stems_done: 40)
        Store::Check.create(patch_id: work.patch_id, treatment_id: work.id, checked_on: on + 14, resprouts: 30,
                            missed: 0, seedlings: 0)
      end
      patch("Q-04").update(state: "regrowing")
      answer = json("/recheck/review.json?year=2025")

      assert_includes answer["change"], { "patch" => "Q-04", "method" => "lever_pull" }
      lever = answer["methods"].find { |one| one["method"] == "lever_pull" }

      assert_equal [80, 60, "worse"], lever.values_at("treated", "alive", "verdict")
    end

    def test_a_patchs_life_and_two_days_of_it
      answer = json("/recheck/patches/#{patch("Q-07").id}/life.json?from=2024-06-01&to=2026-05-01")

      assert_equal patch("Q-07").state, answer["states"].last["state"]
      assert_equal [1100, 168], answer["compared"].map { |was| was["alive"] }
      assert_equal 3, answer["ahead"].size
      get "/recheck/patches/#{patch("Q-07").id}/life?from=1999-01-01&to=soon"

      assert_said "is not between", "is no day", "Live plants at each check"
      assert_equal 200, get("/recheck/patches/#{Store::Patch.where(plant_key: nil).get(:id)}/life").status
    end

    # Seedlings on the old ground are its own, until its seed is spent and a neighbour stands in seed.
    def test_where_seedlings_come_from
      old, near = patch("Q-28"), patch("Q-04")
      address = "/recheck/patches/#{old.id}/origin"
      near.this.update(state: "quiet")
      lon, lat = old.shape.centre
      own = json("#{address}.json?places=#{lat},#{lon}")

      assert_equal "bank", own["sources"].first["source"]
      near.this.update(plant_key: old.plant_key, state: "standing", plants: 400)

      assert_equal "Q-04", json("#{address}.json?places=#{lat},#{lon}")["sources"].first["source"]
      get "#{address}?places=here"

      assert_said "hold “here”, which is no latitude and longitude"
      line = JSON.generate(type: "LineString", coordinates: [[lon, lat], [lon + 0.0001, lat]])
      get "#{address}?geometry=#{Rack::Utils.escape(line)}"

      assert_said "of 2 seedlings"
      assert_equal [0], json("#{address}.json?places=10,10")["far"]
    end
  end
end
