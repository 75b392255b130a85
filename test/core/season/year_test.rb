# frozen_string_literal: true

require "test_helper"

module Thistle
  class YearTest < Minitest::Test
    Season = Core::Season

    # CHECKS.md, Season: FAO Irrigation and Drainage Paper 56 (Allen et al. 1998), Examples 8, 9 and 20 (recalled).
    def test_radiation_daylight_and_evapotranspiration
      assert_in_delta 32.194, Season::Sun.radiation(-20, 246), 0.005
      assert_in_delta 11.666, Season::Sun.daylight(-20, 246), 0.005
      assert_in_delta 40.55, Season::Sun.radiation(45.72, 196), 0.02
      assert_in_delta 5.03, Season::Sun.evapotranspiration(45.72, 196, 14.8, 26.6), 0.01
    end

    def test_the_station_is_the_same_whatever_part_is_asked_for
      station = Testing.site.feed
      year = station.daily(Date.new(2025, 1, 1)..Date.new(2025, 12, 31))

      assert_equal year[100..110], station.daily(year[100].date..year[110].date)
      assert_equal year, StandIns::WeatherStation.new(seed: 7, climate: Testing::CLIMATE)
                                                 .daily(year.first.date..year.last.date)
      refute_equal year, StandIns::WeatherStation.new(seed: 8, climate: Testing::CLIMATE)
                                                 .daily(year.first.date..year.last.date)
    end

    # The climate that was asked for is the climate that comes out, over thirty years.
    def test_the_station_keeps_to_its_climate
      days = Testing.site.feed.daily(Date.new(1995, 1, 1)..Date.new(2024, 12, 31))

      assert_in_delta 13.0, days.sum(&:tmean) / days.size, 0.8
      assert_in_delta Testing::CLIMATE["rain"].sum, days.sum(&:rain) / 30, 150
      assert_in_delta 0.31, days.count { |day| day.rain.positive? } / days.size.to_f, 0.03
      assert(days.all? { |day| day.tmin <= day.tmax })
    end

    def test_hours_stay_within_their_day
      station = Testing.site.feed
      day = station.daily(Testing::TODAY..Testing::TODAY).first
      hours = station.hourly(Testing::TODAY)

      assert_equal 24, hours.size
      assert(hours.all? { |hour| hour.temperature.between?(day.tmin - 0.1, day.tmax + 0.1) })
      assert_in_delta day.rain, hours.sum(&:rain), 0.1
    end

    # Water in = water out + what stays: a bucket fed by hand, worked beside it.
    def test_the_soil_bucket
      soil = Season::Soil.new(texture: "loam", latitude: 38.0, fill: 1.0)
      day = Season::Day.new(date: Date.new(2026, 7, 1), tmin: 18.0, tmax: 30.0, rain: 0.0)
      loss = Season::Sun.evapotranspiration(38.0, 182, 18.0, 30.0)
      soil.pass(day)

      assert_in_delta 1.0 - (loss / 48), soil.fill, 1e-9
      assert_equal(:dry, Array.new(14) { soil.pass(day) }.last)
      assert_equal(:saturated, soil.pass(day.with(rain: 90.0)))
      cold = day.with(tmin: -15.0, tmax: -5.0)

      assert_equal(:frozen, Array.new(10) { soil.pass(cold) }.last)
    end

    def test_anchors_come_in_the_order_of_the_year
      year = Testing.site.year
      order = %i[bud_swell leaf_out full_leaf first_frost third_frost].map { |key| year.date(key) }

      assert_equal order.sort, order
      year.anchors.each { |anchor| assert_operator anchor.early, :<=, anchor.late }
      assert year.anchor(:leaf_out).measured
      refute year.anchor(:first_frost).measured
    end

    # Degree days by hand, from the 46th day on: the mark falls on the day the sum first reaches it.
    def test_full_leaf_is_where_the_degree_days_say
      site = Testing.site
      sum = 0.0
      day = ((site.year.start + 45)..).find { |date| (sum += [site.day(date).tmean - 5, 0].max) >= 460 }

      assert_equal day, site.year.date(:full_leaf)
    end

    def test_the_south_is_half_a_year_away
      south = Testing.site(latitude: -38.0, climate: Testing::CLIMATE.merge("south" => true))

      assert_equal Date.new(2025, 7, 1), south.year.start
      assert_includes 9..12, south.year.date(:full_leaf).month
      assert_includes 4..6, south.year.date(:first_frost).month
    end

    def test_a_place_without_frost_has_no_frost_marks_and_does_not_break
      warm = Testing.site(climate: Testing::CLIMATE.merge("mean" => 26.0, "swing" => 2.0))

      assert_nil warm.year.anchor(:first_frost)
      assert_equal :leaf, Season::Phenology.new(Testing.plant("garlic_mustard"), warm).stage_on(Date.new(2026, 12, 1))
    end

    def test_a_phase_seen_early_moves_the_later_ones
      site = Testing.site
      plain = Season::Phenology.new(Testing.plant("caltrop"), site)
      early = plain.seen(:flower, Testing::TODAY)

      assert_equal :flower, early.stage_on(Testing::TODAY)
      assert_operator early.next(:ripe_seed, Testing::TODAY), :<, plain.next(:ripe_seed, Testing::TODAY)
    end

    # Percentiles by hand: 1, 2, 4, 8 has its 10th at 1.3, its middle at 3, its 90th at 6.8 (R, type 7).
    def test_percentiles_of_a_short_history
      assert_equal [1.3, 3.0, 6.8], [0.1, 0.5, 0.9].map { |share| Season::Percentile.of([1, 2, 4, 8], share).round(9) }
      assert_equal [5, 5, 5], Season::Percentile.spread([5])
    end

    # The usual first frost by hand: the night of each past year, sorted, between the second and the ninth of ten.
    def test_an_anchor_is_the_percentiles_of_its_history
      site = Testing.site
      first = ->(year) { (Date.new(year, 8, 1)..Date.new(year, 12, 31)).find { |date| site.day(date).tmin <= 0 } }
      nights = (1..10).map { |n| (first[2026 - n] - Date.new(2026 - n)).to_i }.sort
      anchor = site.year.anchor(:first_frost)

      assert_equal site.year.start + Season::Percentile.of(nights, 0.1).round, anchor.early
      assert_equal site.year.start + Season::Percentile.of(nights, 0.9).round, anchor.late
    end

    # What was seen goes before what was worked out, and later warmth marks are counted on from it.
    def test_a_mark_that_was_seen
      plain = Testing.site.year
      seen = plain.date(:leaf_out) - 6
      year = watched(anchors: [Season::Seen::Mark.new(key: :leaf_out, on: seen, by: "J. Finch")]).year

      assert_equal [seen, seen, seen], year.anchor(:leaf_out).to_h.values_at(:date, :low, :high)
      assert_operator year.date(:full_leaf), :<, plain.date(:full_leaf)
      assert_equal plain.date(:bud_swell), year.date(:bud_swell)
      assert_match(/-6 days/, year.anchor(:leaf_out).working.last.value)
    end

    # An observed phase moves itself and the later ones by as many days, not the earlier; the spread narrows.
    def test_a_phase_that_was_seen_to_begin
      plant = Testing.plant("amur_honeysuckle")
      before = Season::Phenology.new(plant, Testing.site).spans(Testing.site.year).to_h { |span| [span.phase, span] }
      site = watched(phases: [Season::Seen::Phase.new(plant: plant.key, phase: :flower, on: before[:flower].from - 8,
                                                      began: true)])
      after = Season::Phenology.new(plant, site).spans(site.year).to_h { |span| [span.phase, span] }

      moved = %i[leaf flower green_seed ripe_seed].map { |phase| (after[phase].from - before[phase].from).to_i }
      assert_equal [0, -8, -8, -8], moved
      assert_equal [-8, 0], [after[:ripe_seed].moved, after[:leaf].moved]
      assert_equal after[:flower].from, after[:flower].early
    end

    def test_phases_that_follow_from_others
      spans = Season::Phenology.new(Testing.plant("amur_honeysuckle"), Testing.site)
                               .phenophases(Testing.site.year).to_h { |span| [span.phase, span] }

      assert_equal spans[:flower].from - 1, spans[:budding].to
      assert_equal spans[:leaf].from, spans[:emerging].from
      assert_equal [spans[:green_seed].to, spans[:ripe_seed].to], [spans[:hardening].to, spans[:shedding].to]
      assert(spans.values.all? { |span| span.from.between?(span.early, span.late) })
    end

    # By degree days above 10 °C, summed by hand with the single sine.
    def test_a_phase_by_degree_days
      site = Testing.site
      sum = 0.0
      gained = ->(date) { Season::DegreeDays.sine(site.day(date).tmin, site.day(date).tmax, 10) }
      day = (site.year.start..site.horizon).find { |date| (sum += gained[date]) >= 90 }

      assert_equal [day] * 3, site.year.warm(90, 10)
    end

    # A window says the same as the rules asked of every single day.
    def test_windows_agree_with_every_day
      %w[amur_honeysuckle tree_of_heaven caltrop garlic_mustard eurasian_watermilfoil].each do |key|
        bench = bench(key)
        outlook = Core::Decide::Projection.new(bench.facts, Testing.site)
        bench.removals.each do |removal|
          rules = Core::Decide::Rule.all.select { |rule| rule.concerns?(removal) }
          year = Testing.site.year
          against = ->(date) { rules.any? { |rule| rule.judge(outlook.usually(date), removal)&.against? } }
          open = (year.start..year.finish).reject(&against)
          windows = bench.windows(removal)

          assert_equal open, windows.flat_map { |window| (window.from..window.to).to_a }, "#{key} #{removal.key}"
          assert(windows.all? { |window| window.opens || window.from == Testing.site.year.start })
        end
      end
    end

    def test_an_event_is_found_in_what_fell_what_will_and_what_is_usual
      site = Testing.site
      rain = Season::Event.read("rain_mm" => 20, "within" => 3)
      since = Testing::TODAY - 60
      three = ->(date) { ([date - 2, since].max..date).sum { |day| site.day(day).rain } }
      fell = (since..Testing::TODAY).find { |date| three[date] >= 20 }

      assert_equal [fell, :happened], rain.resolve(site, Testing::TODAY - 61).to_h.values_at(:date, :standing)
      assert_equal :forecast, rain.resolve(site, Testing::TODAY).standing
      frosts = Season::Event.read("frosts" => 3).resolve(site, Testing::TODAY)

      assert_equal [:expected, site.year.date(:third_frost)], [frosts.standing, frosts.date]
      assert_equal site.year.date(:full_leaf), Season::Event.read("anchor" => "full_leaf")
                                                            .due(site, Testing::TODAY - 40)
      assert_equal site.year.date(:third_frost), Season::Event.read("browned" => true).due(site, Testing::TODAY)
      assert_equal :never, Season::Event.read("rain_mm" => 2000).resolve(site, Testing::TODAY).standing
      assert_equal rain, Season::Event.read(rain.to_data)
    end

    # A February and a New Year on the way: the same mark a year later, and days that are there.
    def test_leap_days_and_new_year
      leap = Testing.site(today: Date.new(2024, 2, 29))

      assert_equal Date.new(2024, 12, 31), leap.year.finish
      assert_equal 366, Season::Band.new(leap).marks.size
      winter = Testing.site(today: Date.new(2025, 12, 28))

      assert_equal Date.new(2026, 1, 6), winter.horizon
      assert_equal 2026, Season::Event.read("anchor" => "leaf_out").due(winter, winter.today).year
    end

    def test_beyond_the_forecast_it_is_usual
      site = Testing.site

      assert_equal %i[measured forecast usual], [-1, 3, 40].map { |days| site.day(Testing::TODAY + days).standing }
      assert_equal 365, Season::Band.new(site).marks.size
    end

    private

    def watched(**seen)
      Season::Site.new(feed: Testing.site.feed, latitude: 38.0, texture: "loam", today: Testing::TODAY,
                       seen: Season::Seen::NONE.with(**seen))
    end

    def bench(key)
      Core::Decide::Bench.new(Core::Decide::Facts.new(plant: Testing.plant(key), settled: true, date: Testing::TODAY,
                                                      size: nil, stance: "any",
                                                      licensed: true, aquatic_label: true, slope: "flat",
                                                      natives_near: true, water_m: 0.0, cover: 15), Testing.site)
    end
  end
end
