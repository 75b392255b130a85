# frozen_string_literal: true

require "test_helper"

module Thistle
  class SeasonTest < Minitest::Test
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
      assert_equal year, StandIns::WeatherStation.new(seed: 7, climate: Testing::CLIMATE).daily(year.first.date..year.last.date)
      refute_equal year, StandIns::WeatherStation.new(seed: 8, climate: Testing::CLIMATE).daily(year.first.date..year.last.date)
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

    # Degree days by hand: the mark falls on the day the sum first reaches it.
    def test_full_leaf_is_where_the_degree_days_say
      site = Testing.site
      sum = 0.0
      day = (site.year.start..).find { |date| (sum += [site.day(date).tmean - 5, 0].max) >= 480 }

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

    def test_beyond_the_forecast_it_is_usual
      site = Testing.site

      assert_equal %i[measured forecast usual], [-1, 3, 40].map { |days| site.day(Testing::TODAY + days).standing }
      assert_equal 365, Season::Band.new(site).marks.size
    end
  end
end
