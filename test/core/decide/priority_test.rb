# frozen_string_literal: true

require "test_helper"

module Thistle
  # Which patch first: PRACTICE.md section 2, the order of work (common practice).
  class PriorityTest < Minitest::Test
    Priority = Core::Decide::Priority
    GOALS = Core::Knowledge.shipped.goals

    def test_seed_about_to_fall_comes_before_seed_far_off
      ranked = rank(candidate("late", seed_on: Testing::TODAY + 200), candidate("soon", seed_on: Testing::TODAY + 6),
                    candidate("now", seed_on: Testing::TODAY))

      assert_equal %w[now soon late], ranked
    end

    def test_outliers_before_the_core_and_strangled_trees_before_freed_ones
      assert_equal %w[alone core], rank(candidate("core", nearest_m: 5.0, share: 0.8),
                                        candidate("alone", nearest_m: nil, share: 0.02))
      days = { "freed" => Testing::TODAY - 50, "strangling" => nil }
      climbers = days.map { |code, freed_on| candidate(code, plant: "oriental_bittersweet", freed_on:) }

      assert_equal %w[strangling freed], rank(*climbers, goal: "best_ground")
    end

    # The goal decides: fire asks for the broom by the house, the best ground for the mustard by the orchid.
    def test_goals_differ
      broom = candidate("broom", plant: "french_broom", place: { building_m: 20.0 })
      mustard = candidate("mustard", place: { precious: { label: "rare plants", m: 4.0, worth: 1.0 } })

      assert_equal %w[broom mustard], rank(broom, mustard, goal: "fire")
      assert_equal %w[mustard broom], rank(broom, mustard, goal: "best_ground")
    end

    # By hand: one part alone is that part; two alike are their mean.
    def test_a_score_is_the_weighed_mean_of_its_parts
      one = candidate("a", seed_on: Testing::TODAY + 30, place: { source_m: 150.0 })

      assert_in_delta 1 - (30 / 120.0), Priority.new([one], { "seed" => 7 }).rows.first.score, 1e-9
      assert_in_delta 0.5, Priority.new([one], { "neighbours" => 2 }).rows.first.score, 1e-9
      assert_in_delta (0.75 + 0.5) / 2, Priority.new([one], { "seed" => 5, "neighbours" => 5 }).rows.first.score, 1e-9
    end

    def test_weights_of_all_zeros_are_refused
      error = assert_raises(Core::BadInput) do
        Priority.new([candidate("a")], GOALS["even"].weights.transform_values { 0 })
      end

      assert_equal :weights, error.field
    end

    # Raising a weight never lowers a patch that is best in that part.
    def test_more_weight_lifts_what_is_best_in_it
      random = Random.new(8)
      candidates = Array.new(20) do |n|
        candidate("c#{n}", seed_on: Testing::TODAY + random.rand(0..200), nearest_m: random.rand(1.0..150.0),
                  share: random.rand, started: random.rand < 0.5)
      end
      Priority::TERMS.each_key do |key|
        best = candidates.max_by { |one| Priority::Parts.public_send(key, one) }
        places = [1, 5, 10].map do |weight|
          Priority.new(candidates, GOALS["even"].weights.merge(key => weight)).rows.index { |row| row.id == best.id }
        end

        assert_equal places.sort.reverse, places, key
      end
    end

    private

    def rank(*candidates, goal: "stop_spread")
      Priority.new(candidates, GOALS.fetch(goal).weights).rows.map { |row| row.candidate.code }
    end

    def candidate(code, plant: "garlic_mustard", place: {}, freed_on: nil, seed_on: nil, nearest_m: 60.0, share: 0.5,
                  **more)
      facts = Core::Decide::Facts.new(plant: Testing.plant(plant), settled: true, date: Testing::TODAY,
                                      size: "seedling", stance: "stem", licensed: true, slope: "flat",
                                      natives_near: false, water_m: 200.0, stems: 40, area_m2: 100.0, freed_on:)
      verdict = Core::Decide::Bench.new(facts, Testing.site).verdict(Core::Knowledge.shipped.removal("hand_pull"))
      Priority::Candidate.new(id: code.hash, code:, facts:, today: Testing::TODAY, verdict:, seed_on:, nearest_m:,
                              share:, place: Priority::Place.new(**place), **more)
    end
  end
end
