# frozen_string_literal: true

require "test_helper"

module Thistle
  # Tables over the whole library: where plants belong, what laws ask, how names stand in a sentence.
  class RegionsTest < Minitest::Test
    LIBRARY = Core::Knowledge.shipped
    # Plants that floras put where crews fight them, and where they are at home (recalled).
    WEEDS = { "new_zealand" => %w[tradescantia gorse old_mans_beard lodgepole_pine woolly_nightshade kahili_ginger],
              "australia" => %w[boneseed bridal_creeper lantana camphor_laurel madeira_vine crack_willow],
              "australia_north" => %w[gamba_grass mimosa rubber_vine giant_salvinia],
              "na_gulf" => %w[melaleuca brazilian_pepper air_potato chinese_tallow old_world_climbing_fern cogongrass],
              "na_mountain" => %w[dalmatian_toadflax whitetop houndstongue russian_knapweed cheatgrass leafy_spurge],
              "na_northwest" => %w[scotch_broom herb_robert shiny_geranium hawthorn butterfly_bush],
              "canada_west" => %w[spurge_laurel gorse orange_hawkweed yellow_flag common_tansy],
              "canada_east" => %w[common_reed garlic_mustard european_privet common_buckthorn cow_parsley],
              "british_isles" => %w[himalayan_balsam rhododendron_ponticum american_skunk_cabbage floating_pennywort],
              "mediterranean" => %w[ice_plant pampas_grass silver_wattle tree_of_heaven giant_reed],
              "cape" => %w[port_jackson_willow silky_hakea black_wattle lantana woolly_nightshade] }.freeze
    HOMES = { "british_isles" => %w[hawthorn gorse yellow_flag old_mans_beard stinging_nettle scotch_broom],
              "na_northwest" => %w[american_skunk_cabbage lodgepole_pine stinging_nettle],
              "australia" => %w[black_wattle silver_wattle port_jackson_willow silky_hakea melaleuca],
              "new_zealand" => %w[new_zealand_pigmyweed], "cape" => %w[boneseed bitou_bush ice_plant bridal_creeper],
              "na_gulf" => %w[floating_pennywort], "mediterranean" => %w[gorse english_ivy] }.freeze

    def test_plants_belong_where_floras_have_them
      WEEDS.each { |region, keys| keys.each { |key| assert_equal :weed, belongs(key, region), "#{key}, #{region}" } }
      HOMES.each { |region, keys| keys.each { |key| assert_equal :native, belongs(key, region), "#{key}, #{region}" } }
    end

    # How many of the library are weeds and how many belong, by region: none is without.
    def test_every_region_has_weeds_and_natives
      LIBRARY.regions.each_key do |region|
        weeds = LIBRARY.invaders.count { |plant| plant.invasive_in?(region) }
        natives = LIBRARY.palette.values.count { |native| native.home.include?(region) }

        assert_operator weeds, :>=, 12, region
        assert_operator natives, :>=, 12, region
      end
      nowhere = LIBRARY.invaders.reject { |plant| plant.regions["invasive"] }

      assert_empty nowhere.map(&:key)
    end

    # No list of a country names what belongs there alone.
    def test_no_law_is_against_what_belongs
      LIBRARY.laws.each_value do |law|
        regions = Array(law.country).flat_map { |country| regions_of(country) }.uniq
        Core::Identify::Law::DUTIES.each_key do |duty|
          (law[duty] || []).each do |key|
            homes = regions.map { |region| belongs(key, region) }

            refute(homes.any? && homes.all?(:native), "#{law.key}: #{key}")
          end
        end
      end
      asked = Core::Identify::Law.duties("mimosa", "Australia", "NT").map(&:asked)

      assert_equal %i[control move], asked
      assert_empty Core::Identify::Law.duties("dalmatian_toadflax", "Canada", "QC")
    end

    def test_names_stand_in_a_sentence
      { "himalayan_balsam" => "Himalayan balsam", "garlic_mustard" => "garlic mustard", "herb_robert" => "herb Robert",
        "old_world_climbing_fern" => "Old World climbing fern", "english_ivy" => "English ivy",
        "new_zealand_pigmyweed" => "New Zealand pigmyweed", "canada_thistle" => "Canada thistle",
        "port_jackson_willow" => "Port Jackson willow", "cats_claw_creeper" => "cat's claw creeper" }
        .each { |key, said| assert_equal said, LIBRARY.plant(key).in_text }
    end

    private

    def belongs(key, region) = LIBRARY.plant(key).belongs(region)

    def regions_of(country)
      told = LIBRARY.homes.fetch(country, {})
      [*told["region"], *told.fetch("regions", []).map { |row| row["region"] }]
    end
  end
end
