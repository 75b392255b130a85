# frozen_string_literal: true

require "test_helper"
require_relative "climates"

module Thistle
  # Mix, recheck and replant against CHECKS.md.
  class ArithmeticTest < Minitest::Test
    OZ = Core::Units::ML_PER_FL_OZ
    ACTIVES = Core::Knowledge.shipped.actives

    def batch(**given) = Core::Mix::Batch.new(active: ACTIVES["glyphosate_ipa"], **given).mixture

    # CHECKS.md, Herbicide arithmetic: 41 % to 20 % is 48.78 % stock; a US gallon takes 62.44 and 65.56 fl oz.
    def test_dilution
      gallon = batch(target: 20.0, total_ml: 128 * OZ)

      assert_in_delta 0.4878, gallon.product_share, 5e-5
      assert_in_delta 62.44, gallon.stock_ml / OZ, 0.005
      assert_in_delta 65.56, gallon.carrier_ml / OZ, 0.005
      assert_in_delta 0.5, batch(target: 20.5, total_ml: 1000).product_share
      assert_in_delta 0.82, 0.02 * 41
      assert_in_delta 0.02, batch(target: 0.82, total_ml: 1000).product_share, 1e-12
    end

    # CHECKS.md: acid equivalents from molar masses, which are sums of standard atomic weights.
    def test_acid_equivalents
      shares = { "glyphosate_ipa" => 0.7410, "triclopyr_tea" => 0.7171, "triclopyr_bee" => 0.7191 }

      shares.each { |key, share| assert_in_delta share, ACTIVES[key].acid_share, 1e-4 }
      carbon, hydrogen, nitrogen, oxygen, phosphorus = 12.011, 1.008, 14.007, 15.999, 30.974
      glyphosate = (3 * carbon) + (8 * hydrogen) + nitrogen + (5 * oxygen) + phosphorus
      isopropylamine = (3 * carbon) + (9 * hydrogen) + nitrogen

      assert_in_delta glyphosate, ACTIVES["glyphosate_ipa"].acid_molar_mass, 0.01
      assert_in_delta glyphosate + isopropylamine, ACTIVES["glyphosate_ipa"].salt_molar_mass, 0.02
      assert_in_delta 2.96, 4 * ACTIVES["glyphosate_ipa"].acid_share, 0.005
    end

    # By hand: 37.2 L in 15 L tanks is two full and one of 7.2 L.
    def test_loads
      answer = batch(target: 0.82, total_ml: 37_200, container_ml: 15_000)

      assert_equal 3, answer.loads
      assert_in_delta 7_200, answer.last_load_ml
      assert_in_delta 37_200 * 0.02, answer.stock_ml
      assert_equal 1, batch(target: 0.82, total_ml: 15_000, container_ml: 15_000).loads
    end

    def test_need
      assert_in_delta 85 * 3 * 1.1, Core::Mix::Need.jar(stems: 85, dose_ml: 3).total_ml
      assert_in_delta 5_500, Core::Mix::Need.tank(area_m2: 100, litres_per_100m2: 5).total_ml
    end

    def test_bad_mixes_are_refused_by_field
      { target: { target: 50.0, total_ml: 100 }, stock: { target: 1.0, stock: 0.0, total_ml: 100 },
        amount: { target: 1.0, total_ml: 0 },
        container: { target: 1.0, total_ml: 10, container_ml: -1 } }.each do |field, given|
        assert_equal field, assert_raises(Core::BadInput) { batch(**given) }.field
      end
      assert_match(/stronger than the stock/,
                   assert_raises(Core::BadInput) { batch(target: 50.0, total_ml: 1) }.message)
      assert_raises(Core::BadInput) { Core::Mix::Need.jar(stems: -4, dose_ml: 1) }
      assert_raises(Core::BadInput) { Core::Mix::Need.tank(area_m2: 1e12, litres_per_100m2: 1) }
    end

    # CHECKS.md, Follow-up. Quantiles: R 4.2.2, qbeta(c(.05,.95),10,2), (60,6) and (1,65), run once and quoted.
    def test_beta_against_r
      { [10, 2] => [0.6356405, 0.9666808], [60, 6] => [0.8450446, 0.9590331], [1, 65] => [0.0007888163, 0.0450422581] }.each do |(a, b), (low, high)|
        beta = Core::Recheck::Beta.new(a, b)

        assert_in_delta low, beta.quantile(0.05), 1e-6
        assert_in_delta high, beta.quantile(0.95), 1e-6
      end
      assert_in_delta 10 / 12.0, Core::Recheck::Control.of(treated: 10, alive: 1).mean / 100
    end

    def test_control
      found = Core::Recheck::Control.of(treated: 64, alive: 5)

      assert_in_delta 100 * 59 / 64.0, found.percent
      assert_in_delta 84.50, found.low, 0.01
      assert_nil Core::Recheck::Control.of(treated: 0, alive: 0)
      assert_raises(Core::BadInput) { Core::Recheck::Control.of(treated: 3, alive: 4) }
    end

    # CHECKS.md: p = 0.5, d = 0.8: 0.5, 0.1667, 0.0385, 0.0079, 0.0016 for n = 0..4.
    def test_chance_alive
      assert_equal [0.5, 0.1667, 0.0385, 0.0079, 0.0016], (0..4).map { |n| Core::Recheck::Alive.chance(n).round(4) }
      assert_equal 2, Core::Recheck::Alive.checks_needed(0.05)
    end

    # CHECKS.md, Replanting: 12 in triangular 1.1547 per ft², 18 in square 0.4444; 0.90 x 0.80 and 10 lb PLS is 13.89 lb
    # bulk.
    def test_plugs_and_seed
      ft2 = Core::Units::M2_PER_FT2
      quantity = Core::Replant::Quantity

      assert_equal 11_548, quantity.plugs(area_m2: 10_000 * ft2, spacing_m: 0.3048).plugs
      assert_equal 4_445, quantity.plugs(area_m2: 10_000 * ft2, spacing_m: 0.4572, grid: "square").plugs
      seed = quantity.seed(area_m2: 1.0, seeds_per_m2: 10, seeds_per_g: 1, purity: 0.9, germination: 0.8)

      assert_in_delta 13.89, seed.bulk_g, 0.005
      assert_raises(Core::BadInput) do
        quantity.seed(area_m2: 1.0, seeds_per_m2: 1, seeds_per_g: 1, purity: 1.2, germination: 0.8)
      end
      assert_raises(Core::BadInput) { quantity.plugs(area_m2: 0, spacing_m: 1) }
    end

    def test_shortlist_fits_the_place_and_the_job
      list = Core::Replant::Shortlist.new(light: "shade", moisture: "dry", jobs: %w[ground_cover])
      names = list.matches.map { |m| m.plant.key }

      assert_includes names, "christmas_fern"
      assert_includes names, "plantain_leaved_sedge"
      refute_includes names, "little_bluestem"
      assert(list.matches.all? { |m| m.taken_over == %w[ground_cover] })
      assert_operator Core::Knowledge.shipped.natives.count(&:replant), :>=, 12
      assert_raises(Core::BadInput) { Core::Replant::Shortlist.new(light: "dim", moisture: "dry", jobs: []) }
    end

    # PRACTICE.md: sow after three or four frosts and let winter work it in.
    def test_dormant_sowing_follows_the_third_frost
      window = Core::Replant::Sowing.new(Testing.site).windows("dormant").first

      assert_equal Testing.site.year.date(:third_frost), window.from
      refute window.open
      assert Core::Replant::Sowing.new(Testing.site).windows("spring_or_autumn").first.open
    end

    # Where no frost comes rain says when; every native has a window everywhere, and a list keeps to what is at home.
    def test_planting_follows_the_rains_where_no_frost_comes
      coast, tropics, desert = %w[coast tropics desert].map { |name| Climates.site(name) }
      begins = ->(site, table) { Core::Replant::Sowing.new(site).windows(table).first }
      rains = ->(site) do
        [site.year, site.year(site.today >> 12)].filter_map { |year| year.moment(:first_rains)&.date }
      end

      [[coast, "spring_or_autumn"], [coast, "dormant"], [tropics, "dormant"], [tropics, "spring"]].each { |site, table| assert_includes rains[site], begins[site, table].from }
      assert_includes rains[desert], begins[desert, "dormant"].to
      Core::Replant::Sowing::TABLES.each_key do |table|
        [coast, tropics, desert].each { |site| refute_empty Core::Replant::Sowing.new(site).windows(table), table }
      end
      here, abroad = %w[na_midwest british_isles].map do |region|
        Core::Replant::Shortlist.new(light: "part", moisture: "moist", jobs: %w[nectar fruit], region:)
                                .matches.map(&:plant)
      end

      assert(here.any? && here.all? { |plant| plant.native_in?("na_midwest") })
      assert(abroad.all? { |plant| plant.native_in?("british_isles") })
    end

    def test_units_both_ways
      us, metric = %w[us metric].map { |system| Core::Units.new(system) }

      assert_equal "1 ac", us.area(4046.8564224)
      assert_equal "1 gal", us.volume(128 * OZ)
      assert_equal "8.4 ha", metric.area(84_000)
      assert_equal "74 °F", us.temperature(23.5)
      assert_equal "1.5 ft", us.length(0.4572)
      assert_in_delta 100.0, us.from_si(:area, us.to_si(:area, 100.0))
      assert_equal "3\u202F232 m²", metric.area(3232.4)
      # By hand: 20 gal/ac is 75.708 L on 4046.86 m², 1.871 L on 100 m².
      assert_in_delta 1.871, us.to_si(:rate, 20), 0.001
      assert_equal "20 gal/ac", us.rate(1.8708)
      assert_raises(Core::BadInput) { Core::Units.new("cubits") }
    end
  end
end
