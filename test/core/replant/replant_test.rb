# frozen_string_literal: true

require "test_helper"
require "support/climates"

module Thistle
  # Plugs, seed and sowing windows against CHECKS.md.
  class ReplantTest < Minitest::Test
    # CHECKS.md, Replanting: 12 in triangular 1.1547 per ft², 18 in square 0.4444; 0.90 x 0.80 and 10 lb PLS is 13.89 lb
    # bulk.
    def test_plugs_and_seed
      ft2 = Core::Units::M2_PER_FT2
      quantity = Core::Replant::PlantingRate

      assert_equal 11_548, quantity.plugs(area_m2: 10_000 * ft2, spacing_m: 0.3048).plugs
      assert_equal 4_445, quantity.plugs(area_m2: 10_000 * ft2, spacing_m: 0.4572, grid: "square").plugs
      seed = quantity.seed(area_m2: 1.0, seeds_per_m2: 10, seeds_per_g: 1, purity: 0.9, germination: 0.8)

      assert_in_delta 13.89, seed.bulk_g, 0.005
      assert_raises(Core::BadInput) do
        quantity.seed(area_m2: 1.0, seeds_per_m2: 1, seeds_per_g: 1, purity: 1.2, germination: 0.8)
      end
      assert_raises(Core::BadInput) { quantity.plugs(area_m2: 0, spacing_m: 1) }
    end

    # PRACTICE.md: sow after three or four frosts and let winter work it in.
    def test_dormant_sowing_follows_the_third_frost
      window = Core::Replant::Sowing.new(Testing.site).windows("dormant").first

      assert_equal Testing.site.year.date(:third_frost), window.from
      refute window.open
      assert Core::Replant::Sowing.new(Testing.site).windows("spring_or_autumn").first.open
      indiangrass = Core::Knowledge.shipped.native("indiangrass") # sown dormant, its plugs planted in spring
      sown, planted = [true, false].map do |way|
        Core::Replant::Sowing.new(Testing.site).of(indiangrass, sown: way).first
      end

      spring = Core::Replant::Sowing.new(Testing.site).windows("warm_seed").first

      assert_equal [spring.from, true, true], [sown.from, sown.open, planted.open], "it grows in the heat"
      forb = Core::Knowledge.shipped.palette.values.find { |one| one.cold_moist? && one.sown? }
      season = Core::Replant::Sowing.new(Testing.site)

      assert_equal window.from, season.of_mix([indiangrass, forb]).first.from, "what wants winter waits for it"
      assert_equal spring.from, season.of_mix([indiangrass, forb], cold: true).first.from, "unless it had one"
    end

    # Where no frost comes rain says when; every native has a window everywhere, and a list keeps to what is at home.
    def test_planting_follows_the_rains_where_no_frost_comes
      coast, tropics, desert = %w[coast tropics desert].map { |name| Climates.site(name) }
      begins = ->(site, table) { Core::Replant::Sowing.new(site).windows(table).first }
      rains = ->(site) do
        [site.year, site.year(site.today >> 12)].filter_map { |year| year.moment(:first_rains)&.date }
      end

      asked = [[coast, "spring_or_autumn"], [coast, "dormant"], [tropics, "dormant"], [tropics, "spring"]]
      asked.each { |site, table| assert_includes rains[site], begins[site, table].from }
      assert_includes rains[desert], begins[desert, "dormant"].to
      Core::Replant::Sowing::TABLES.except("warm_seed", "bare_root").each_key do |table|
        [coast, tropics, desert].each { |site| refute_empty Core::Replant::Sowing.new(site).windows(table), table }
      end
    end
  end
end
