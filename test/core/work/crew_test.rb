# frozen_string_literal: true

require "test_helper"

module Thistle
  # Lines and teams, pace, recounts, heat and cold, hauling: each against something outside.
  class CrewTest < Minitest::Test
    Work = Core::Work

    R_SAYS = { ["cut_stump", "thumb", false] => [1.458359850, 1.182588153, 1.798439674],
               ["cut_stump", "wrist", true] => [1.916591124, 1.491462037, 2.462899790],
               ["hand_pull", nil, false] => [1.2238587740, 0.6946676157, 2.1561827049] }.freeze

    def station(key, minutes, **more)
      drawn = minutes.respond_to?(:call) ? minutes : ->(_) { minutes }
      Work::Line::Station.new(key:, people: 1, minutes: drawn, **more)
    end

    def exponential(mean) = ->(random) { -mean * Math.log(1 - random.rand) }

    # CHECKS.md: M/M/1 at ρ = 0.8 holds 4 in the system (Kleinrock 1975, recalled).
    def test_a_line_against_the_theory_of_queues
      stations = [station(:arrive, exponential(1.0), after: [:serve]), station(:serve, exponential(0.8))]
      played = Work::Line.new(stations, items: 40_000, seed: 4).run

      assert_in_delta 4, played.mean[:serve], 0.3
      assert_in_delta 0.8, played.busy[:serve], 0.015
    end

    # By hand: one cuts a minute, the other treats three; at most three stand untreated. The treater begins after a
    # minute and never rests: 1 + 5 × 3. The cutter starts the fourth when the first is treated, at 4, the fifth at 7.
    def test_never_more_than_three_stubs_stand_untreated
      stations = [station(:cut, 1.0, after: [:treat]), station(:treat, 3.0, room: 3)]
      played = Work::Line.new(stations, items: 5).run

      assert_equal [16.0, 3], [played.minutes, played.most[:treat]]
      assert_equal [0, 1, 2, 4, 7], played.spells.select { |one| one.station == :cut }.map(&:from)
    end

    # Of all ways to part a crew the soonest done; never more at the herbicide than may be; nobody to treat, no line.
    def test_teams
      cut = Core::Knowledge.shipped.removal("cut_stump")
      teams = Work::Teams.new(cut, stems: 200, minutes: 2.0, people: 8, licensed: 2, haul_minutes: 0.5)

      assert_equal 8, teams.best.people.values.sum
      assert_operator teams.best.people["treat"], :<=, 2
      assert_equal 3, teams.best.played.most["treat"]
      assert_operator teams.best.minutes, :>=, 200 * 2.5 / 8 # nobody is ever idle in that
      assert_operator teams.one_more, :>, 0
      assert_empty Work::Teams.new(cut, stems: 9, minutes: 2.0, people: 8, licensed: 0).splits
      assert_empty Work::Teams.new(cut, stems: 9, minutes: 2.0, people: 2, licensed: 1).splits
    end

    # R 4.2, the normal posterior by matrices: m0 + K (y - H m0) and P0 - K H P0 with K = P0 H' solve(H P0 H' + R); six
    # records of a crew at 0.4 and four of volunteers at 0.7.
    def test_pace_against_r
      pace = Work::Pace.new(seen("cut_stump", "thumb", 0.4, 6) + seen("cut_stump", "wrist", 0.7, 4, volunteers: true))
      R_SAYS.each do |(method, size, volunteers), figures|
        factor = pace.of(method, size, volunteers:)

        figures.zip([factor.median, factor.low, factor.high]).each { |is, ours| assert_in_delta is, ours, 1e-7 }
      end
      assert_equal [10, 0], [pace.of("cut_stump", "thumb").count, pace.of("hand_pull").count]
      assert_nil Work::Pace.new([]).of("cut_stump")
    end

    # Two crews played through, one at 1.5 times what is planned, volunteers at 1.8 times that.
    def test_a_known_pace_is_recovered
      random = Random.new(5)
      seen = Array.new(300) do |n|
        slow = n.even? ? 1.5 : 1.5 * 1.8
        normal = Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand)
        Work::Pace::Seen.new(method: "hand_pull", size: "pencil", volunteers: n.odd?, planned: 2.0,
                             hours: 2.0 * slow * Math.exp(0.45 * normal))
      end
      pace = Work::Pace.new(seen)

      assert_in_delta 1.5, pace.of("hand_pull", "pencil").median, 0.12
      assert_in_delta 2.7, pace.of("hand_pull", "pencil", volunteers: true).median, 0.25
    end

    # CHECKS.md: Chapman 1951, 30, 25 and 20 seen by both; the variance by hand is 31 × 26 × 10 × 5 ÷ (21² × 22).
    def test_how_many_stems_two_people_missed
      count = Work::Recount.new(one: 30, other: 25, both: 20)

      assert_in_delta 37.38, count.estimate, 0.005
      assert_in_delta 40_300 / 9702.0, count.variance, 1e-9
      low, high = count.range

      assert_operator low, :<, count.unseen
      assert_operator high, :>, count.unseen
      assert_in_delta 0, Work::Recount.new(one: 5, other: 5, both: 5).unseen
      { both: { one: 3, other: 2, both: 3 }, one: { one: -1, other: 2, both: 0 } }.each do |field, counts|
        assert_equal field, assert_raises(Core::BadInput) { Work::Recount.new(**counts) }.field
      end
    end

    # CHECKS.md: Rothfusz 1990, and the wind chill of 2001, both recalled.
    def test_heat_and_cold
      celsius, fahrenheit = ->(t) { (t - 32) / 1.8 }, ->(t) { (t * 1.8) + 32 }
      { [90, 70] => 105.9, [95, 50] => 105.2 }.each do |(t, rh), felt|
        assert_in_delta felt, fahrenheit[Work::Exposure.heat_index(celsius[t], rh)], 0.05
      end
      { [0, 15] => -19.4, [30, 10] => 21.2 }.each do |(t, mph), felt|
        assert_in_delta felt, fahrenheit[Work::Exposure.wind_chill(celsius[t], mph * 1.609344)], 0.05
      end
      assert_nil Work::Exposure.wind_chill(15, 20)
      assert_in_delta(-30, Work::Exposure.wind_chill(-30, 2), 1e-9, "below 3 mph the air's own")
      assert_match(/nobody works/, Work::Exposure.caution(-30, 50, 0).last)
      assert_match(/nobody works/, Work::Exposure.caution(-30, 50, nil).last)
      # By the formula: 30 °C and 60 % are e = 25.4 hPa, 0.567 × 30 + 0.393 × 25.4 + 3.94.
      assert_in_delta 30.9, Work::Exposure.wbgt(30, 60), 0.1
      assert_match(/Danger/, Work::Exposure.caution(celsius[90], 70, 5).last)
      assert_match(/Skin freezes/, Work::Exposure.caution(-25, 50, 40).last)
      assert_nil Work::Exposure.caution(18, 50, 8)
    end

    # CHECKS.md, values that came up in use: about 0.7 to 1 L an hour in heat, not over 1.4; 45/15 from 28 °C WBGT,
    # 30/30 from 29, 15/45 from 31 (NIOSH and ACGIH, recalled). What is typed goes before.
    def test_what_a_day_asks_of_bodies
      day = ->(t, rh, told = {}) {
        Work::Bodies.new([Core::Season::Hours::Now.new(at: 14, temperature: t, humidity: rh, wind: 5.0)], told)
      }

      assert_equal [0.4, 0.7, 1.0], [day[18, 50], day[29, 40], day[34, 55]].map(&:drink)
      assert_equal [nil, [45, 15], [15, 45]], [day[20, 50], day[28, 60], day[34, 55]].map(&:work_rest)
      assert_equal [[45, 15], [30, 30], [15, 45]], [28.0, 29.0, 31.0].map { |wbgt| day[20, 50, { wbgt: }].work_rest }
      assert_equal [33.0, 1.2], day[20, 50, { felt: 33.0, drink: 1.2 }].then { |one| [one.felt, one.drink] }
      assert_in_delta 8 * 4 * 0.7, day[29, 40].litres(8, 4)
      assert_nil Work::Bodies.new([]).drink
      assert_operator Work::Bodies::DRINK.values.max, :<=, Work::Bodies::MOST
    end

    # By hand, from how crews are kitted out: what cuts goes by the stem, what digs by the root.
    def test_tools_by_stem_and_plant
      keys = ->(method, plant, size) do
        Work::Tools.keys(Core::Knowledge.shipped.removal(method), plant: Core::Knowledge.shipped.plant(plant), size:)
      end

      assert_equal %w[pruners jar drip_cup eye_wash], keys["cut_stump", "amur_honeysuckle", "pencil"]
      assert_equal %w[loppers jar drip_cup eye_wash], keys["cut_stump", "amur_honeysuckle", "thumb"]
      assert_equal %w[bow_saw helmet jar drip_cup eye_wash], keys["cut_stump", "tree_of_heaven", "wider"]
      assert_equal %w[gloves lever bar], keys["lever_pull", "scotch_broom", "wrist"]
      assert_includes keys["dig_crown", "garlic_mustard", nil], "narrow_spade"
      assert_equal "saw", Work::Tools.family("loppers")
      needs = ->(size) { Work::Job.needs(Core::Knowledge.shipped.removal("cut_only"), size:).map(&:text) }

      assert_equal [[], ["someone trained to fell what is wider than a wrist"]], [needs["thumb"], needs["wider"]]
    end

    # CHECKS.md: 1 000 ft² at 7 in are 21.60 yd³. By hand: 20 wrists are 440 kg and 9 m³, so 9 loads by bulk; 120 m
    # there and back at 2 km/h and three minutes' handling, two people: 9 × 2 × (0.12 + 0.05) h; 40 logs bear three
    # piles, and 9 m³ want three; a trailer of 200 kg or 5 m³ goes three times.
    def test_hauling_and_mulch
      chips = Work::Mulch.new(area_m2: 1000 * 0.09290304, depth_cm: 17.78)

      assert_in_delta 21.60, chips.volume_m3 / 0.764554858, 0.005
      assert_equal 13, Work::Mulch.new(area_m2: 10, depth_cm: 8).sheets(width_m: 1.2, height_m: 1.0, overlap_m: 0.2)
      mean, thin, missing = Work::Mulch.new(area_m2: 100, depth_cm: 10).sampled([10, 12, 6, 8])

      assert_equal [9.0, [3]], [mean, thin]
      assert_in_delta 1.5, missing
      trailer = Work::Haul::Trailer.new(kg: 200.0, litres: 5000.0)
      hauled = Work::Haul.new(stems: { wrist: 20 }, distance_m: 120, fruit: true, trailer:).answer

      assert_equal 3, hauled.trips
      assert_equal [440.0, 9000.0, 9, 40, 3, 3], hauled.to_h.values_at(:kg, :litres, :loads, :logs, :piles_possible,
                                                                       :piles_wanted)
      assert_in_delta 3.06, hauled.person_hours
      assert_equal [75, 1], [hauled.bags_whole, hauled.bags_stripped]
    end

    # Rounded by hand from the rules: clear and shallow is a snorkel's, clear and deep a dive team's, murky or cold a
    # rake's. CHECKS.md has no line for it.
    def test_a_day_in_the_water
      way = ->(depth_m, clarity_m, **more) { Work::WaterDay.new(depth_m:, clarity_m:, **more).way }

      assert_equal %i[snorkel free_dive dive rake stay_out snorkel rake dive],
                   [way[1.0, 2.0], way[3.0, 2.0], way[5.0, 2.0], way[1.0, 0.3], way[9.0, 4.0],
                    way[1.0, 2.0, water_c: 8.0], way[1.0, 2.0, water_c: 4.0], way[3.0, 2.0, water_c: 8.0]]
      assert_match(/drysuit/, Work::WaterDay.new(depth_m: 1, clarity_m: 2, water_c: 8.0).dress)
      hour = ->(at) { Core::Season::Hours::Now.new(at:, wind: 5.0) }
      sun = { 8 => 20.0, 12 => 65.0, 17 => 30.0, 20 => 2.0 }
      best = ->(**more) { Work::WaterDay.best_hours(sun.keys.map(&hour), sun.method(:fetch), **more) }

      assert_equal [[8, 17], [8, 12, 17]], [best[], best[cloud: 80]], "glare at noon, none under bright cloud"
      assert_match(/calm hour/, Work::WaterDay.new(depth_m: 1, clarity_m: 2, wind_km_h: 20.0).because.join)
      assert_equal :clarity, assert_raises(Core::BadInput) { Work::WaterDay.new(depth_m: 1, clarity_m: 0) }.field
      # By geometry: at an equinox the noon sun stands at 90° less the latitude; 3 h from noon on the equator at 45°.
      equinox = Date.new(2026, 3, 20)

      assert_in_delta 52, Core::Season::Sun.height(equinox, 38.0, 0), 0.5
      assert_in_delta 45, Core::Season::Sun.height(equinox, 0.0, 3), 0.5
    end

    private

    def seen(method, size, log, count, volunteers: false)
      Array.new(count) do
        Work::Pace::Seen.new(method:, size:, volunteers:, planned: 2.0, hours: 2.0 * Math.exp(log))
      end
    end
  end
end
