# frozen_string_literal: true

require "test_helper"

module Thistle
  # Where a wrong go does harm, the bench never says it: every invader, method, season and stem, on ground where nothing else
  # stands against the work.
  class HarmTest < Minitest::Test
    FAVOURABLE = { settled: true, stance: "any", licensed: true, aquatic_label: true, slope: "flat", natives_near: false, cover: 80.0, soil: :moist, full_cover: true,
                   burn_permit: true, fire_adapted: true, clean_site: true, crew: 8, area_m2: 50.0, stems: 20 }.freeze
    DAYS = %w[2026-01-20 2026-04-20 2026-06-10 2026-07-20 2026-09-10 2026-11-20].map { |day| Date.iso8601(day) }.freeze
    SIZES = %w[seedling thumb wider].freeze

    def each_bench
      Core::Knowledge.shipped.invaders.each do |plant|
        DAYS.product(SIZES) do |date, size|
          water_m = plant.aquatic? ? 0.0 : 300.0
          yield plant, Core::Decide::Bench.new(Core::Decide::Choices.new(plant:, date:, size:, water_m:, **FAVOURABLE), Testing.site)
        end
      end
    end

    def test_no_method_that_harms_or_that_nobody_knows_is_go
      faults = []
      each_bench do |plant, bench|
        bench.removals.select(&:removes?).each do |removal|
          next unless bench.kind(removal) == :go

          told = plant.removals[removal.key]
          faults << "#{plant.key}: #{removal.key} backfires" if told && told["backfires"]
          faults << "#{plant.key}: #{removal.key} is not named and nothing carries it" unless told || removal.carried(plant, bench.choices.size)
          faults << "#{plant.key}: burnt with seed on it" if removal.is?(:burning) && %i[green_seed ripe_seed].include?(bench.situation.stage)
        end
      end

      assert_empty faults.uniq
    end

    # What is only asked about has no figures of its own, and is never the best move.
    def test_a_question_is_never_the_best_move
      asked = 0
      each_bench do |_, bench|
        next unless bench.choices.date == DAYS[3] && bench.choices.size == "thumb"

        asked += bench.verdicts.count(&:ask?)

        refute_equal :ask, bench.best&.kind
      end
      assert_operator asked, :>, 10
    end

    # The table says what the bench says: what harms is told, and what nobody knows is not dressed as known.
    def test_the_table_of_effects
      table = Core::Knowledge::Effects.new(Core::Knowledge.shipped).rows.to_h { |plant, effects| [plant.key, effects] }

      assert_equal Core::Knowledge.shipped.invaders.size, table.size
      assert_equal %i[harms harms kills kills holds harms pointless],
                   table["tree_of_heaven"].values_at("girdle", "cut_only", "hack_and_squirt", "basal_bark", "limb_up_and_flag", "forestry_mulch", "aquatic_rake")
      assert_equal %i[kills harms pointless], table["amur_honeysuckle"].values_at("cut_stump", "cut_only", "survival_ring")
    end

    # Digging what lives on by its rhizomes is not said to end nine in ten.
    def test_what_stays_sprouts
      dig = Core::Knowledge.shipped.removal("dig_crown")

      assert_operator dig.kill(Testing.plant("crown_vetch"))["likely"], :<, 60
      assert_equal dig.kill["likely"], dig.kill(Testing.plant("gamba_grass"))["likely"]
    end
  end
end
