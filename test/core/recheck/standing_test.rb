# frozen_string_literal: true

require "test_helper"

module Thistle
  # What stands there by the records, held against the outlook of the same records and against sums by hand.
  class StandingTest < Minitest::Test
    Recheck = Core::Recheck
    Standing = Recheck::Standing
    Event = Standing::Event
    KILL = Recheck::Stages::Spread.new(low: 0.8, likely: 0.92, high: 0.98, source: "memory")
    VISIT = Recheck::Strategy.new(key: "worked", kill: KILL, visits: 1)
    MAPPED, WORKED, CHECKED = Date.new(2025, 5, 1), Date.new(2025, 5, 20), Date.new(2025, 7, 1)

    def model(plant, m2: 400.0, latitude: 41.0)
      Standing.new(Recheck::Stages.of(Core::Knowledge.shipped.plant(plant)), m2:, latitude:)
    end

    def worked(done, **told) = Event.new(kind: :worked, on: WORKED, from: ["treatment", 1], done:, kill: 0.92, **told)

    def checked(plants, seedlings, bearing: plants)
      Event.new(kind: :looked, on: CHECKED, from: ["check", 1], plants:, bearing:, seedlings:)
    end

    def told(plant, plants, events, **ground)
      model = model(plant, **ground)
      model.after(events, first: model.begin_with(plants, MAPPED, counted: true))
    end

    # 320 mapped, 300 treated at 92 %: 20 + 300 × 0.08 = 44; a check of one missed and 25 seedlings is what stands until
    # the next season begins.
    def test_a_patch_by_hand
      hit = told("amur_honeysuckle", 320, [worked(300)])

      assert_equal 44, hit.whole
      assert_equal WORKED, hit.worked_on
      found = told("amur_honeysuckle", 320, [worked(300), checked(1, 25)])

      assert_equal [1, 25, nil, ["check", 1]], [found.whole, found.whole_young, found.worked_on, found.from]
      assert_equal found.whole, model("amur_honeysuckle").on(found, Date.new(2025, 12, 31)).whole
      spring = model("amur_honeysuckle").on(found, Date.new(2026, 5, 1))

      assert_in_delta 1, spring.plants, 0.1
      assert_in_delta 25 * 0.12, spring.small, 0.2 # of 25 seedlings, twelve of a hundred live to the next year
      assert_operator spring.seedlings, :<, 25, "what is left of the seed that sent up 25, and what one plant bears"
    end

    # By ground: a third parted off, then joined again, is what it was; south of the equator a season begins in July.
    def test_parts_and_joins
      whole = told("garlic_mustard", 300, [worked(nil)])
      part, rest = [1 / 3.0, 2 / 3.0].map do |share|
        model("garlic_mustard").after([Event.new(kind: :parted, on: WORKED + 1, share:)], first: whole)
      end

      assert_in_delta whole.plants / 3, part.plants
      assert part.shared
      again = model("garlic_mustard").after([Event.new(kind: :joined, on: WORKED + 2, state: part)], first: rest)

      %i[plants seedlings seeds ground].each do |what|
        assert_in_delta whole.public_send(what), again.public_send(what), 1e-6
      end
      south = model("gorse", latitude: -41.0)
      seen = south.begin_with(10, Date.new(2025, 5, 1), counted: true)

      assert_equal [1, 1], [south.seasons(seen.on, Date.new(2025, 7, 1)), south.seasons(seen.on, Date.new(2026, 6, 30))]
    end

    # Published, recalled (Penfound and Earle 1948): doubles in about two weeks while it is warm; in winter it rests.
    def test_floating_plants_double_in_weeks
      water = model("water_hyacinth", m2: 4000.0)
      seen = water.begin_with(10, Date.new(2025, 6, 1), counted: true)
      weeks = ->(number) { water.on(seen, seen.on + (7 * number)).plants }

      assert_includes 15.0..30.0, weeks[2]
      assert_in_delta weeks[4] / weeks[2], weeks[6] / weeks[4], 0.2
      winter = water.begin_with(10, Date.new(2025, 12, 1), counted: true)

      assert_in_delta 10, water.on(winter, Date.new(2025, 12, 31)).plants
      assert_equal 10, model("amur_honeysuckle").on(model("amur_honeysuckle").begin_with(10, seen.on, counted: true),
                                                    Date.new(2025, 9, 1)).whole
    end

    # Every plant whose stand is told, counted in every month, north and south: what doubles in weeks apart, a count
    # stays until the season turns; then a stand with room that nobody works in holds or grows, and by no more than its
    # own rate.
    def test_every_plant_from_every_month
      wrong = Core::Knowledge.shipped.plants.values.select(&:stages).flat_map do |plant|
        [41.0, -41.0].product((1..12).to_a).filter_map { |latitude, month| beyond(plant, latitude, month) }
      end

      assert_empty wrong
    end

    # Stands whose numbers are known, worked in and then counted as they are: what is said of the next year is what
    # stands there then, for every plant, by the middle of a hundred stands.
    def test_it_comes_to_what_stands_there
      off = Core::Knowledge.shipped.plants.values.select(&:stages).filter_map do |plant|
        times = of_known_stands(plant)
        doubles = plant.stages["creep"].to_h["likely"].to_f >= Recheck::Growth::DOUBLING # and half the season is over
        format("%s %.2f", plant.key, times) unless times.between?(doubles ? 0.4 : 0.6, 1.6)
      end

      assert_empty off
    end

    # Never below nothing, never more than the outlook's nine of ten, for every plant whose stand is told, by the same
    # records: mapped, worked, checked or not, and years of nobody.
    def test_it_lies_within_the_outlook
      random = Random.new(3)
      over = Core::Knowledge.shipped.plants.values.select(&:stages).flat_map do |plant|
        plants, alive, young = random.rand(20..400), random.rand(0..12), random.rand(0..60)
        state = told(plant.key, plants, [worked(plants), checked(alive, young, bearing: alive / 4)])
        past = [Recheck::Outlook::Past.new(visit: VISIT, alive:, seedlings: young, before: false)]
        ahead = Recheck::Outlook.new(Recheck::Stages.of(plant), Recheck::Outlook::Stand.new(plants:, m2: 400.0, past:),
                                     Recheck::Outlook::Play.new(horizon: 4, futures: 300))
        years = ahead.compare([VISIT.with(key: "never", visits: 0, hours: 0, look: 0)]).first.years
        years.each_with_index.filter_map do |year, n|
          there = model(plant.key).on(state, Date.new(2026 + n, 6, 1))

          assert_operator [there.adults, there.young, there.small, there.seedlings, there.seeds].min, :>=, 0
          all = there.plants + there.small + there.seedlings
          next if there.plants <= year.standing.last + 1 && all <= year.shows.last + 1

          format("%s %d: %d and %d, outlook %d and %d", plant.key, n, there.plants, there.seedlings, year.standing.last,
                 year.shows.last)
        end
      end

      assert_empty over
    end

    private

    # How many times what stands a year later is said, in the middle of a hundred stands.
    def of_known_stands(plant, stands: 100)
      stages = Recheck::Stages.of(plant)
      ranges = stages.ranges.merge("kill" => KILL, "plants" => Recheck::Outlook::COUNTED.of(100))
      known = Recheck::Futures.new(ranges, count: stands, m2: 400.0, annual: stages.annual?, seed: 5).begin_with
      visit = { visits: Numo::DFloat.ones(stands), kill: known.at["kill"], found: known.at["found"],
                small: known.at["found_small"], late: false }
      now, later = known.year(0, visit), known.year(1, nil)
      young = now.seedlings - (now.pulled * known.at["kill_small"])
      said = Array.new(stands) do |n|
        state = told(plant.key, 100,
                     [worked(100), checked(now.left[n].round, young[n].round, bearing: now.left[n] / 2)])
        model(plant.key).on(state, Date.new(2026, 6, 1)).then { |there| there.plants + there.small }
      end
      said.each_with_index.map { |plants, n| (plants + 1) / (later.standing[n] + 1) }.sort[stands / 2]
    end

    # What a count of a hundred comes to that should not; nil where all is well.
    def beyond(plant, latitude, month)
      model, day = model(plant.key, m2: 1e7, latitude:), Date.new(2025, month, 15)
      count = model.begin_with(100, day, counted: true)
      turn = Core::Season::Year.start_of(day, latitude) >> 12
      within, after = [turn - 1, turn].map { |on| model.on(count, on).plants }
      stages = Recheck::Stages.of(plant)
      doubles = stages.likely["creep"] >= Recheck::Growth::DOUBLING
      most = doubles ? (1 + stages.likely["creep"]) * 1.05 : stages.growth_rate * 1.05
      return if (doubles ? within >= 100 : within == 100) && after >= 100 * 0.95 &&
                after <= [100 * most, 100].max

      format("%s %+d %d: %.0f, then %.0f, rate %.2f", plant.key, latitude, month, within, after, stages.growth_rate)
    end
  end
end
