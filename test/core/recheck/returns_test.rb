# frozen_string_literal: true

require "test_helper"

module Thistle
  # Return visits and a patch's life, by PRACTICE.md, section 9 (common practice).
  class ReturnsTest < Minitest::Test
    Life = Core::Recheck::PatchLife
    Record = Core::Recheck::Story::Record

    def visits(plant, method, done_on)
      removal = Core::Knowledge.shipped.removal(method)
      Core::Recheck::Returns.new(plant: Testing.plant(plant), removal:, done_on:, site: Testing.site).visits
    end

    # PRACTICE.md section 9: three weeks after pulling an annual.
    def test_an_annual_is_looked_at_after_three_weeks
      first = visits("caltrop", "loosen_and_pull", Testing::TODAY).first

      assert_equal Testing::TODAY + 21, first.due_on
      assert_equal "Three weeks: missed seedlings of an annual", first.text
    end

    def test_stumps_are_looked_at_when_leaves_are_full
      autumn = visits("amur_honeysuckle", "cut_stump", Date.new(2025, 11, 8))

      assert_equal Testing.site.year.date(:full_leaf), autumn.first.due_on
      assert_match(/stump resprouts/, autumn.first.text)
      # cut in full leaf: the next full leaf is next year's
      stumps = visits("amur_honeysuckle", "cut_stump", Date.new(2026, 6, 1)).find { |one| one.text.include?("stump") }

      assert_equal 2027, stumps.due_on.year
    end

    def test_a_tussock_is_looked_at_after_the_next_soaking_rain
      site = Testing.site
      fell = ->(date) { ([date - 2, Testing::TODAY + 1].max..date).sum { |day| site.day(day).rain } }
      rain = ((Testing::TODAY + 1)..site.horizon).find { |date| fell[date] >= 20 }
      visit = visits("buffelgrass", "dig_crown", Testing::TODAY).find { |v| v.key == "tussock_after_rain" }

      assert rain, "the forecast of the test's seed holds a soaking rain"
      assert_equal rain + 3, visit.due_on
      assert_in_delta 20, visit.event.mm
    end

    def test_every_year_of_the_seed_bank
      years = visits("garlic_mustard", "hand_pull", Testing::TODAY).select { |v| v.key == "seed_bank" }

      assert_equal (2027..2032).to_a, years.map { |v| v.due_on.year }
      assert_includes years.last.text, "year 6 of 6"
    end

    def test_a_lake_several_times_a_summer
      assert_equal [21, 30], visits("eurasian_watermilfoil", "aquatic_hand_pull", Date.new(2026, 6, 1)).map { |v|
        (v.due_on - Date.new(2026, 6, 1)).to_i
      }
    end

    # DESIGN.md section 2: the one place that says which record moves which state.
    def test_a_patchs_life
      story = [[:observation, { settled: false }, "reported"], [:treatment, { removes: false }, "reported"],
               [:observation, { settled: true }, "standing"],
               [:check, { live: true }, "standing"], [:treatment, { removes: true }, "hit"],
               [:check, { live: true }, "regrowing"],
               [:treatment, { removes: true }, "hit"], [:check, { live: false }, "quiet"],
               [:check, { live: false }, "closed"],
               [:check, { live: true }, "regrowing"]]
      events = []
      story.each_with_index do |(kind, facts, state), n|
        events << Record.new(kind:, on: Date.new(2020 + n, 6, 1), **facts)

        assert_equal state, Life.new(events.shuffle(random: Random.new(n))).state, "after #{kind} #{facts}"
      end
    end

    def test_it_does_not_close_while_its_seed_lives
      events = [Record.new(kind: :treatment, on: Date.new(2024, 5, 1), removes: true), *[2024, 2025, 2026].map do |y|
        Record.new(kind: :check, on: Date.new(y, 6, 1), live: false)
      end]

      assert_equal "hit", Life.new(events.first(1)).state
      named = Record.new(kind: :observation, on: Date.new(2023, 1, 1), settled: true)

      assert_equal "closed", Life.new([named, *events], seed_bank_years: 2).state
      assert_equal "quiet", Life.new(events, seed_bank_years: 5).state
      assert_equal "quiet", Life.new(events, seed_bank_years: 2, fragment_years: 4).state, "pieces outlast the seed"
    end

    # Years of seedlings count from the last fall: a plant pulled before it ripened adds none, and what nobody said
    # counts as fallen.
    def test_seed_years_count_from_the_last_fall
      fell = ->(answers) do
        [2020, 2023].zip(answers).map do |year, answer|
          Record.new(kind: :treatment, on: Date.new(year, 6, 1), removes: true, seed_fall: answer)
        end
      end
      clean = [2024, 2025, 2026].map { |year| Record.new(kind: :check, on: Date.new(year, 6, 1), live: false) }
      said = [%w[fallen none], %w[fallen falling], ["fallen", nil]]
      states = said.map { |answers| Life.new(fell[answers] + clean, seed_bank_years: 5).state }

      assert_equal %w[closed quiet quiet], states
      calendar = Testing.site.calendar(Testing.plant("garlic_mustard"))

      expected = [4, 6, 11].map { |month| Core::Recheck::SeedFall.expected(calendar, Date.new(2026, month, 15)) }

      assert_equal %w[none falling fallen], expected
      assert_nil Core::Recheck::SeedFall.expected(Testing.site.calendar(Testing.plant("eurasian_watermilfoil")),
                                                  Testing::TODAY)
    end
  end
end
