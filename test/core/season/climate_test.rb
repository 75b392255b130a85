# frozen_string_literal: true

require "test_helper"
require "support/climates"

module Thistle
  # What the season decides in climates that frost does not rule: PRACTICE.md, section 9 (common practice), held
  # against simulated stations of such climates.
  class ClimateTest < Minitest::Test
    Season = Core::Season
    include Climates

    def test_climates_are_told_from_the_usual_weather
      sites = { frost: Testing.site, wet_dry: tropics, winter_wet: coast, desert: }
      told = sites.transform_values { |site| site.climate.key.to_sym }

      assert_equal told.keys, told.values
    end

    # Wet-dry tropics: everything hangs on the first soaking rains, not on temperature.
    def test_the_tropics_hang_on_the_rains
      keys = tropics.year.anchors.map(&:key)

      assert_equal %i[first_rains rank_grass wet_end cured_grass], keys
      assert_includes [9, 10, 11], tropics.year.date(:first_rains).month
      assert_includes [4, 5], tropics.year.date(:wet_end).month
      assert_nil tropics.year.date(:first_frost)
    end

    # Gamba grass: pulled and sprayed in the wet, marked and come back for in the dry.
    def test_a_tropical_tussock_is_worked_in_the_wet
      bench = bench("gamba_grass", tropics, size: "seedling")
      wet = tropics.year.date(:first_rains) + 60
      dry = tropics.year.date(:cured_grass) + 30

      %w[hand_pull foliar_tussock].each { |key| assert_equal [true, false], open_on(bench, key, wet, dry), key }
      assert_equal [false, true], open_on(bench, "tag_and_return", wet, dry)
    end

    # Winter-wet: pull in the wet months; the rains of autumn come after the dry summer.
    def test_a_winter_wet_year
      year = coast.year

      assert_operator year.date(:wet_end), :<, year.date(:cured_grass)
      assert_operator year.date(:cured_grass), :<, year.date(:first_rains)
      assert_equal [true, false], open_on(bench("french_broom", coast, size: "seedling"), "hand_pull",
                                          Date.new(2026, 1, 20), Date.new(2026, 7, 20))
    end

    def test_the_desert_waits_for_the_summer_rains
      rains = desert.year.date(:first_rains)
      flower = Season::Phenology.new(Testing.plant("buffelgrass"), desert).spans(desert.year)
                                .find { |span| span.phase == :flower && span.from > rains }
      spray = bench("buffelgrass", desert, size: "seedling")

      assert_includes 6..8, rains.month
      assert_equal rains + 14, flower.from
      assert_equal [false, true], open_on(spray, "foliar_tussock", rains - 30, rains + 26)
    end

    # Gamba grass flowers as the wet ends and seeds into the dry: its own rows for that climate, not those of frost.
    def test_a_plant_has_its_own_phases_where_its_file_gives_them
      stages = [tropics.year.date(:first_rains) + 60, tropics.year.date(:wet_end) - 10]
      grass = Season::Phenology.new(Testing.plant("gamba_grass"), tropics)

      assert_equal %i[leaf flower], stages.map { |date| grass.stage_on(date) }
      assert_equal :ripe_seed, grass.stage_on(tropics.year.date(:wet_end) + 60)
    end

    # Where nothing is known, broad values stand in, turned round south of the equator.
    def test_broad_weather_is_turned_south_of_the_equator
      north, south = [38.0, -38.0].map { |latitude| Season::BroadWeather.climate(latitude, region: "na_west") }

      assert_equal north["rain"].rotate(6), south["rain"]
      assert_equal [false, true], [north, south].map { |climate| climate["south"] }
      assert_equal [38.5, -122.0], Season::BroadWeather.middle(region: "na_west")
      site = Testing.site(latitude: -14.0, climate: Season::BroadWeather.climate(-14.0, climate: "wet_dry"))

      assert_equal "wet_dry", site.climate.key
    end

    # Six months' shift: the same climate, turned round.
    def test_the_south_has_the_same_year_half_a_year_later
      north = Testing.site(latitude: 38.0, climate: Testing::CLIMATE)
      south = Testing.site(latitude: -38.0, climate: SOUTH)
      full_leaf = Core::Knowledge.shipped.anchors["full_leaf"]
      means = [north, south].map { |site| site.past.sum { |spotter| spotter.find(full_leaf) } / 10.0 }

      assert_in_delta(*means, 8)
      assert_equal [true, false], [Date.new(2026, 1, 15), Date.new(2026, 6, 15)].map { |day|
        Season::Phenology.new(Testing.plant("amur_honeysuckle"), south).phases_on(day).include?(:leaf)
      }
    end

    # Hopkins (1918), CHECKS.md: 2 degrees north and 1 000 ft up is 18 days later in spring; autumn comes as much
    # earlier.
    def test_a_station_elsewhere_moves_the_marks
      here = Season::Station.new(latitude: 40.0, longitude: -90.0, elevation: 304.8)
      there = Season::Station.new(name: "the valley", latitude: 38.0, longitude: -90.0, elevation: 0.0, kind: :own)

      assert_in_delta 18, Season::Hopkins.days(there, here), 1e-9
      assert_in_delta 4, Season::Hopkins.days(there, there.with(longitude: -85.0)), 1e-9
      assert_in_delta 0, Season::Hopkins.days(there.with(longitude: 10.0), there.with(longitude: 15.0)), 1e-9

      feed = StandIns::WeatherStation.new(seed: 7, climate: Testing::CLIMATE, station: there)
      there = { latitude: 40.0, longitude: -90.0, elevation: 304.8 }
      moved = Season::Site.new(feed:, **there, texture: "loam", today: Testing::TODAY).year
      still = Testing.site.year

      assert_equal still.date(:leaf_out) + 18, moved.date(:leaf_out)
      assert_equal still.date(:first_frost) - 18, moved.date(:first_frost)
      assert(moved.anchor(:leaf_out).working.any? { |step| step.label == "Moved" && step.value == "+18 days" })
    end

    # Broad values say what is usual, never what this day's wind is: no mark has come, nothing may be sprayed.
    def test_broad_values_claim_nothing_of_this_year
      feed = StandIns::WeatherStation.new(seed: 3, climate: Testing::CLIMATE, standing: :regional)
      site = Season::Site.new(feed:, latitude: 38.0, longitude: -91.4, texture: "loam", today: Testing::TODAY)

      assert(site.year.anchors.none?(&:measured))
      assert(site.year.anchors.all? { |anchor| anchor.low < anchor.high })
      assert_equal [Testing::TODAY, false, 10], [site.horizon, site.known?(Testing::TODAY), site.origin.regional_years]
      assert_empty site.fit(:foliar).stretches
      assert(site.fit(:foliar).hours.all? { |said| said.against.any?(&:unknown) })
    end

    private

    def bench(key, site, **facts)
      Core::Decide::Bench.new(Core::Decide::Facts.new(plant: Testing.plant(key), settled: true, date: site.today,
                                                      stance: "any", licensed: true,
                                                      aquatic_label: false, slope: "flat", natives_near: false,
                                                      water_m: 500.0, **facts), site)
    end

    def open_on(bench, method, *dates)
      windows = bench.windows(Core::Knowledge.shipped.removal(method))
      dates.map { |date| windows.any? { |window| date.between?(window.from, window.to) } }
    end
  end
end
