# frozen_string_literal: true

require "open3"
require "test_helper"

module Thistle
  # The library as a whole: what it holds, what it must never get wrong, how sound it is for naming plants.
  class LibraryTest < Minitest::Test
    def library = Core::Knowledge.shipped
    def plant(key) = Testing.plant(key)

    # PRACTICE.md section 4: the plants that the software must know.
    NAMED = %w[oriental_bittersweet asparagus_fern tree_of_heaven autumn_olive russian_olive japanese_barberry caltrop
               reed_canary_grass garlic_mustard amur_honeysuckle morrows_honeysuckle tatarian_honeysuckle
               japanese_honeysuckle callery_pear black_locust buffelgrass eurasian_watermilfoil
               french_broom scotch_broom portuguese_broom creeping_liriope clumping_liriope shiny_geranium gamba_grass
               ground_ivy english_ivy himalayan_blackberry english_holly cherry_laurel japanese_knotweed
               yellow_archangel papyrus field_mustard black_mustard stinging_nettle
               american_bittersweet staghorn_sumac smooth_sumac black_walnut white_ash american_barberry
               coral_honeysuckle tanglehead arizona_cottontop
               plains_bristlegrass northern_watermilfoil coontail bladderwort doves_foot_geranium trailing_blackberry
               poison_ivy poison_oak
               cutleaf_toothwort common_blue_violet].freeze

    def test_the_plants_of_the_practice_page_are_there
      assert_empty NAMED - library.plants.keys
      assert_operator library.invaders.size, :>=, 75
      assert_operator library.natives.size, :>=, 60
      assert_operator library.characters.size, :>=, 60
      whole = ->(one) { one.removals.any? && one.regions["invasive"] && one.dispersal && one.disposal.any? }

      assert(library.invaders.all?(&whole))
    end

    # What can hurt says so, on every plant that hurts; and what must never be composted goes to landfill.
    def test_hazards_and_disposal_are_never_missing
      { "burning_sap" => %w[giant_hogweed wild_parsnip cow_parsnip], "rash" => %w[poison_ivy poison_oak],
        "sting" => %w[stinging_nettle wood_nettle],
        "poison" => %w[poison_hemlock water_hemlock],
        "poison_eaten" => %w[pokeweed chinaberry cherry_laurel english_holly],
        "sap" => %w[leafy_spurge flowering_spurge ground_ivy] }.each do |hazard, keys|
        keys.each { |key| assert_includes plant(key).hazards, hazard, key }
      end

      %w[japanese_knotweed yellow_archangel].each do |key|
        assert_equal "bag_and_landfill", plant(key).disposal["clean"], key
      end
      armed = library.invaders.select { |one| one.phase?("ripe_seed") && one.is?(:thorny) && !one.aquatic? }
      armed.each { |one| assert_includes one.hazards, "thorns", one.key }

      water = ->(one) { one.hazards.include?("water") && one.disposal["clean"] == "above_high_water" }

      assert(library.invaders.select(&:aquatic?).all?(&water))
    end

    # Cutting alone backfires on whatever resprouts, or is said to hold it back and no more.
    def test_no_resprouter_is_told_to_be_cut_as_a_kill
      library.invaders.select { |one| one.woody? && one.resprouts? }.each do |one|
        row = one.removals["cut_only"]

        assert row.nil? || row.keys.intersect?(%w[backfires holds]), "#{one.key}: cutting alone"
      end
      library.invaders.select { |one| one.is?(:root_suckers) && one.form == :tree }.each do |one|
        row = one.removals["girdle"]

        assert row.nil? || row.keys.intersect?(%w[backfires holds]), "#{one.key}: girdling"
      end
    end

    # Keys that one file names and no other has: said by file and field.
    def test_a_school_a_goal_or_a_kit_that_is_not_known_stops_the_boot
      { "schools.yml" => ["default: stem", "default: moon", "schools.yml: herbicide/default: moon is not known"],
        "goals.yml" => ["seed: 5,", "luck: 5,", "goals.yml: even/weights: luck is not known"],
        "methods/girdle.yml" => ["kit: [saw]", "kit: [wand]", "methods/girdle.yml: kit: " \
                                                              "wand is not known"] }.each do |file, (from, to, said)|
        Dir.mktmpdir do |dir|
          FileUtils.cp_r("#{Core::Knowledge::FOLDER}/.", dir)
          path = File.join(dir, file)
          File.write(path, File.read(path).sub(from, to))

          assert_equal "knowledge/#{said}",
                       assert_raises(Core::Knowledge::Fault) { Core::Knowledge.new(folder: dir) }.message
        end
      end
    end

    def test_health_finds_what_is_wrong_and_passes_what_is_right
      health = Core::Knowledge::Health.new(library)

      assert_empty health.hard_pairs
      assert_empty health.idle_characters + health.thin_plants + health.unused_states
      assert_equal %w[common_teasel cut_leaved_teasel], [health.pairs.first.left.key, health.pairs.first.right.key].sort
      assert_equal health.pairs.size, library.plants.size * (library.plants.size - 1) / 2
      assert_equal ["common practice", "memory", "published, recalled"], health.standing.keys.sort
    end

    # The same library with one plant told twice under two names: nothing separates the pair, and that is said.
    def test_health_names_a_pair_that_nothing_separates
      Dir.mktmpdir do |dir|
        FileUtils.cp_r("#{Core::Knowledge::FOLDER}/.", dir)
        FileUtils.cp("#{dir}/natives/spicebush.yml", "#{dir}/natives/spicebush_again.yml")
        pair = Core::Knowledge::Health.new(Core::Knowledge.new(folder: dir)).hard_pairs.first

        assert_equal %w[spicebush spicebush_again], [pair.left.key, pair.right.key].sort
        assert_in_delta 0.0, pair.apart
      end
    end

    def test_the_command_line_says_how_the_library_is
      out, status = Open3.capture2e(RbConfig.ruby, "bin/thistle", "plants", "check", chdir: ROOT)

      assert_predicate status, :success?
      assert_match(/\A#{library.invaders.size} invaders, #{library.natives.size} natives/, out)
      assert_match(/Pairs that no set of looks separates: none/, out)
      refute_predicate Open3.capture2e(RbConfig.ruby, "bin/thistle", "plants", "chekc", chdir: ROOT).last, :success?
    end

    # Forgetting a plant leaves the rest as it was, look-alikes and all.
    def test_a_library_without_a_plant
      other = library.without("coralberry")

      assert_equal library.plants.size - 1, other.plants.size
      assert library.plants.key?("coralberry")
      refute_includes Core::Identify::Settlement.pairs(plant("amur_honeysuckle"), other)
                                                .map { |pair| pair.plant.key }, "coralberry"
    end
  end
end
