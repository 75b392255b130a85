# frozen_string_literal: true

require "test_helper"

module Thistle
  # Whether a quiet patch still lives, and where a look is worth its hours.
  class PresenceTest < Minitest::Test
    Presence = Core::Recheck::Presence
    Alive = Core::Recheck::Alive
    LookRound = Core::Recheck::LookRound
    FELL = Date.new(2020, 9, 1)

    def looks(*days, detects: 0.8) = days.map { |day| Presence::Look.new(on: Date.iso8601(day), detects:) }

    # CHECKS.md: p = 0.5, d = 0.8 gives 0.0385 after two looks; without seed or pieces that is all there is to it.
    def test_looks_alone_are_the_published_formula
      two = Presence.new(looks: looks("2021-05-01", "2021-06-01"))

      assert_in_delta 0.0385, two.chance(Date.new(2021, 7, 1)), 5e-5
      assert_in_delta 0.5 * 0.4 * 0.7 / ((0.5 * 0.4 * 0.7) + 0.5), Alive.after([0.6, 0.3]), 1e-12
      assert_in_delta 0.5, Alive.after([0.0, 0.0]), 1e-12, "a look that could see nothing says nothing"
    end

    # CHECKS.md: a hundredth is left after the years; a half-life is 1/6.644 of them.
    def test_seed_is_spent_with_the_years
      bank = Presence.new(looks: [], fell_on: FELL, seed_years: 6.644)

      assert_in_delta 0.5, bank.seed(FELL + 365.25), 1e-3
      assert_in_delta 0.01, bank.seed(FELL + (6.644 * 365.25)), 1e-4
      seen = Presence.new(looks: looks("2021-05-01", "2022-05-01"), fell_on: FELL, seed_years: 6.644)

      assert_operator seen.seed(Date.new(2023, 1, 1)), :<, bank.seed(Date.new(2023, 1, 1))
      assert_operator seen.chance(Date.new(2023, 1, 1)), :>, seen.stands
    end

    # Koopman's random search: half of what there is where the swept ground is ln 2 of the whole.
    def test_detection_by_effort
      assert_in_delta 0.5, Alive.detection(people: 2, minutes: 10, sight: "patchy", m2: 600 / Math.log(2)), 1e-9
      assert_nil Alive.detection(people: 2, minutes: nil, sight: "open", m2: 100)
      assert_operator Alive.detection(people: 9, minutes: 600, sight: "open", m2: 1), :<=, 0.98
    end

    # Looks on both sides of New Year are of two growing seasons in the north, and of one in the south.
    def test_looks_count_by_growing_season
      seed = ->(latitude) do
        Presence.new(looks: looks("2024-12-20", "2025-01-10"), fell_on: FELL, seed_years: 6, latitude:)
                .seed(Date.new(2025, 2, 1))
      end
      one = Presence.new(looks: looks("2025-01-10"), fell_on: FELL, seed_years: 6, latitude: -34.0)

      assert_operator seed[38.0], :<, seed[-34.0]
      assert_in_delta one.seed(Date.new(2025, 2, 1)), seed[-34.0], 1e-12
    end

    # Against every subset.
    def test_which_patches_to_look_at_is_the_best_there_is
      random = Random.new(4)
      20.times do
        all = Array.new(9) do |n|
          LookRound::Candidate.new(id: n, hours: random.rand(0.25..3.0), worth: random.rand(-5.0..60.0))
        end
        hours = random.rand(2.0..8.0)
        best = (0..9).flat_map { |size| all.combination(size).select { |some| some.sum(&:hours) <= hours } }
                     .map { |some| some.sum(&:worth) }.max

        assert_in_delta best, LookRound.new(all, hours).chosen.sum(&:worth), 1e-6
      end
      assert_raises(Core::BadInput) { LookRound.new([], -1) }
    end

    def test_a_closed_patch_is_open_again_when_it_is_seen
      record = Core::Recheck::Story::Record
      seen = [record.new(kind: :observation, id: 1, on: FELL, settled: true),
              record.new(kind: :treatment, id: 2, on: FELL + 1, removes: true)]
      clean = [200, 220, 240].each_with_index.map do |n, k|
        record.new(kind: :check, id: 3 + k, on: FELL + n, live: false, shows: true)
      end
      again = record.new(kind: :observation, id: 9, on: FELL + 300, settled: true)

      assert_equal "closed", Core::Recheck::PatchLife.new(seen + clean).state
      assert_equal "regrowing", Core::Recheck::PatchLife.new(seen + clean + [again]).state
      hurried = clean.map { |look| look.with(detects: 0.1) }

      assert_equal "quiet", Core::Recheck::PatchLife.new(seen + hurried).state, "three glances close nothing"
    end
  end
end
