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

    # PRACTICE.md section 9: three weeks after pulling an annual (common practice); here it comes out of the warmth.
    def test_an_annual_is_looked_at_after_about_three_weeks
      caltrop = visits("caltrop", "loosen_and_pull", Testing::TODAY)

      assert_in_delta 21, (caltrop.first.due_on - Testing::TODAY).to_i, 4
      assert_match(/look for plants that were missed; 2\d days, the handbook says three weeks/, caltrop.first.text)
      again = caltrop.select { |visit| visit.key.start_with?("before_seed") }.map(&:due_on)

      assert(again.first(5).each_cons(2).all? { |a, b| (b - a).between?(18, 32) }, "about as far apart all summer")
      assert_equal caltrop.map { |visit| [visit.key, visit.due_on.year] }.uniq.size, caltrop.size
      assert_includes visits("buffelgrass", "dig_crown", Testing::TODAY).map(&:key), "before_next_seed"
    end

    # Every invader by every kind of method that its file names in every climate, a month of each in turn (all of them:
    # bin/thistle returns table): no visit after the next ripe seed while something may have been missed, unless it is
    # ripe on the next day; none missing; no two within a week.
    def test_no_visit_is_late_missing_or_doubled
      sites = StandIns::Grounds::CLIMATES.keys.to_h { |key| [key, StandIns::Grounds.of(key, today: Testing::TODAY)] }
      turn, seen, wrong = 0, Set.new, []
      months = ->(plant, method, climate) do
        new = seen.add?([plant.key, Core::Knowledge.shipped.removal(method).tags, climate])
        new ? [((turn += 7) % 12) + 1] : []
      end
      Core::Recheck::ReturnsTable.new(Core::Knowledge.shipped, sites).each(2026, months) do |row|
        late = row.late? && !row.ripe_tomorrow?
        wrong << row.line if row.missing? || late || row.doubled?
      end

      assert_operator seen.size, :>, 2500
      assert_empty wrong
    end

    # Stiltgrass waits for short days: what comes up in July is taken once, before its first seed of the season; what
    # comes up while it seeds is not left to the next year.
    def test_seedlings_of_a_plant_that_waits_for_short_days
      july = visits("japanese_stiltgrass", "hand_pull", Date.new(2026, 7, 1))
      seed = Testing.site.calendar(Testing.plant("japanese_stiltgrass"))
                    .spells(:ripe_seed, Date.new(2026, 7, 1), Date.new(2026, 12, 1)).first
      balsam = visits("himalayan_balsam", "hand_pull", Date.new(2026, 8, 20))

      assert_equal 1, july.count { |visit| visit.due_on.between?(seed.early - 40, seed.from) }
      assert_operator balsam.first.due_on, :<=, Date.new(2026, 9, 10)
    end

    # No fewer visits take every cohort before its seed: every set of days tried.
    def test_the_fewest_visits_against_every_set_of_days
      random = Random.new(11)
      start = Date.new(2026, 5, 1)
      40.times do
        cohorts = Array.new(random.rand(1..7)) do
          from = random.rand(0..9)
          Core::Recheck::VisitSchedule::Cohort.new(from: start + from, to: start + random.rand(from..11), what: "x")
        end
        fewest = (0..12).find do |size|
          (0..11).to_a.combination(size).any? do |days|
            cohorts.all? { |one| days.any? { |day| (start + day).between?(one.from, one.to) } }
          end
        end
        found = Core::Recheck::VisitSchedule.new(cohorts).visits

        assert_equal fewest, found.size
        assert(cohorts.all? { |one| found.any? { |visit| visit.on.between?(one.from, one.to) } })
      end
    end

    def test_visits_that_one_walk_makes
      visit = ->(id, from, to, east) do
        Core::Recheck::VisitRounds::Visit.new(id:, from: Testing::TODAY + from, to: Testing::TODAY + to,
                                              at: [-91.4 + (east / 88_000.0), 38.0])
      end
      visits = [visit[1, 0, 4, 0], visit[2, 3, 9, 200], visit[3, 5, 9, 210], visit[4, 0, 5, 900]]
      rounds = Core::Recheck::VisitRounds.new(visits).rounds

      assert_equal [[1, 2], [4], [3]], rounds.map { |round| round.visits.map(&:id) }
      assert(rounds.all? { |round| round.visits.all? { |one| round.on.between?(one.from, one.to) } })
    end

    def test_stumps_are_looked_at_when_leaves_are_full
      autumn = visits("amur_honeysuckle", "cut_stump", Date.new(2025, 11, 8))

      assert_equal Testing.site.year.date(:full_leaf), autumn.first.due_on
      assert_match(/stump resprouts/, autumn.first.text)
      # cut in full leaf: the next full leaf is next year's
      stumps = visits("amur_honeysuckle", "cut_stump", Date.new(2026, 6, 1)).find do |one|
        one.text.start_with?("Next full leaf")
      end

      assert_equal 2027, stumps.due_on.year
    end

    def test_a_tussock_is_looked_at_after_the_next_soaking_rain
      site = Testing.site
      fell = ->(date) { ([date - 2, Testing::TODAY + 1].max..date).sum { |day| site.day(day).rain } }
      rain = ((Testing::TODAY + 1)..site.horizon).find { |date| fell[date] >= 20 }
      visit = visits("buffelgrass", "dig_crown", Testing::TODAY).find { |v| v.text.include?("soaking rain") }

      assert rain, "the forecast of the test's seed holds a soaking rain"
      assert_equal rain + 5, visit.due_on
    end

    # Seed or pieces, whichever lives longer: six years of garlic mustard's seed, ten of knotweed's roots.
    def test_every_year_of_seed_and_pieces
      { "garlic_mustard" => 6, "japanese_knotweed" => 10, "creeping_liriope" => 10 }.each do |plant, years|
        looks = visits(plant, "dig_crown", Testing::TODAY).select { |visit| visit.key == "every_year" }

        assert_equal (2027..(2026 + years)).to_a, looks.map { |visit| visit.due_on.year }, plant
      end
    end

    def test_a_lake_several_times_a_summer
      found = visits("eurasian_watermilfoil", "aquatic_hand_pull", Date.new(2026, 6, 1))

      assert_equal [21, 36, 63, 84], found.map { |visit| (visit.due_on - Date.new(2026, 6, 1)).to_i }.first(4)
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
      assert_nil Core::Recheck::SeedFall.expected(Testing.site.calendar(Testing.plant("periwinkle")),
                                                  Testing::TODAY)
    end
  end
end
