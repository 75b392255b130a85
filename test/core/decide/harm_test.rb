# frozen_string_literal: true

require "test_helper"

module Thistle
  # Where a wrong go does harm, the bench never says it: every invader, method, season and stem, on ground where nothing
  # else stands against the work.
  class HarmTest < Minitest::Test
    FAVOURABLE = { settled: true, stance: "any", licensed: true, aquatic_label: true, slope: "flat",
                   natives_near: false, cover: 80.0, soil: :moist, full_cover: true,
                   burn_permit: true, fire_adapted: true, clean_site: true, crew: 8, area_m2: 50.0, stems: 20 }.freeze
    DAYS = %w[2026-01-20 2026-04-20 2026-06-10 2026-07-20 2026-09-10 2026-11-20].map { |day| Date.iso8601(day) }.freeze
    MONTHS = (1..12).map { |month| Date.new(2026, month, 12) }.freeze
    SIZES = %w[seedling thumb wider].freeze

    def each_bench(days = DAYS, sizes = SIZES)
      Core::Knowledge.shipped.invaders.each do |plant|
        # a herb has no stem width
        days.product(plant.woody? || plant.is?(:tussock) ? sizes : sizes.first(1)) do |date, size|
          water_m = plant.aquatic? ? 0.0 : 300.0
          cover = plant.aquatic? ? 15.0 : FAVOURABLE[:cover] # a dense stand in water is not pulled by hand
          facts = Core::Decide::Facts.new(plant:, date:, size:, water_m:, **FAVOURABLE, cover:)
          yield plant, Core::Decide::Bench.new(facts, Testing.site)
        end
      end
    end

    def test_no_method_that_harms_or_that_nobody_knows_is_go
      faults = []
      each_bench(MONTHS, Core::Removal::SIZES) do |plant, bench|
        bench.removals.select(&:removes?).each do |removal|
          next unless bench.kind(removal) == :go

          told = removal.told(plant)
          if told&.keys&.intersect?(%w[backfires pointless holds])
            faults << "#{plant.key}: #{removal.key} backfires, is in vain or only holds"
          end
          unless told || removal.carried(plant, bench.facts.size)
            faults << "#{plant.key}: #{removal.key} is not named and nothing carries it"
          end
          faults << "#{plant.key}: burnt with seed on it" if burns_seed?(removal, told, bench.situation.stage)
        end
      end

      assert_empty faults.uniq
    end

    # Unless its own file gives that stage.
    def burns_seed?(removal, told, stage)
      removal.is?(:burning) && %i[green_seed ripe_seed].include?(stage) && !told&.fetch("at", [])&.include?(stage.to_s)
    end

    # Each file has a way to go in its season for each thing that ground may be for, with desirable plants beside or
    # without.
    def test_every_invader_has_a_go_in_its_season
      gone = Hash.new { |hash, key| hash[key] = [] }
      each_bench(DAYS.values_at(1, 3, 5), SIZES) do |plant, bench|
        Core::Knowledge.shipped.aims.keys.product([true, false]) do |aim, natives_near|
          facts = bench.facts.with(aim:, natives_near:, cover: [bench.facts.cover, 40.0].min)
          asked = Core::Decide::Bench.new(facts, bench.site)
          next if gone[[plant.key, aim, natives_near]].any?

          gone[[plant.key, aim, natives_near]] = asked.removals.select do |removal|
            (removal.removes? || removal.is?(:seed_stop)) && asked.kind(removal) == :go
          end
        end
      end

      assert_empty(gone.select { |_, ways| ways.empty? }.keys)
      assert_operator gone.size, :>, 1000
    end

    # What the table still asks about is named here: nobody's bulletin answers it.
    def test_what_is_still_a_question
      rows = Core::Knowledge::Effects.new(Core::Knowledge.shipped).rows
      asked = rows.flat_map { |plant, effects| effects.filter_map { |key, told| [plant.key, key] if told == :unknown } }

      assert_equal [%w[dames_rocket prescribed_burn], %w[rhododendron_ponticum basal_bark]], asked.sort
    end

    # Each part of a plant goes to one place; where a pile is built nothing says never, and nothing that lives goes on
    # it.
    def test_where_it_goes_never_contradicts_itself
      hauled = Core::Decide::School.settle({ piles: "haul" })
      Core::Knowledge.shipped.invaders.each do |plant|
        %i[leaf flower green_seed ripe_seed dormant].product([nil, hauled]).each do |stage, schools|
          facts = Core::Decide::Facts.new(plant:, date: DAYS[3], stage:, schools:, **FAVOURABLE)
          now = Core::Decide::Bench.new(facts, Testing.site).situation
          Core::Knowledge.shipped.methods_of_removal.each_value do |removal|
            assert_sound_waste(now, removal, hauled: !schools.nil?)
          end
        end
      end
    end

    def assert_sound_waste(now, removal, hauled:)
      safety, parts = Core::Decide::Safety.new(now, removal), Core::Decide::Waste.new(now, removal).parts
      said = "#{now.plant.key} #{removal.key} #{now.stage}"
      piled = parts.select { |part| part.way == "brush_pile" }

      refute(safety.pile && (safety.never || hauled), said)
      assert_equal parts.map(&:key).uniq, parts.map(&:key), said
      assert_empty piled.map(&:key) - [:branch], said
      refute(parts.map(&:key).include?(:standing) && parts.size > 1, said)
      assert_empty piled, said if now.plant.is?(:layers, :fragments_root)
    end

    # What is only asked about has no figures of its own, and is never the best move.
    def test_a_question_is_never_the_best_move
      asked = 0
      each_bench do |_, bench|
        next unless bench.facts.date == DAYS[3] && bench.facts.size == "thumb"

        asked += bench.verdicts.count(&:ask?)

        refute_equal :ask, bench.best&.kind
      end
      assert_operator asked, :>=, 1
    end

    # The table says what the bench says: what harms is told, and what nobody knows is not dressed as known.
    def test_the_table_of_effects
      table = Core::Knowledge::Effects.new(Core::Knowledge.shipped).rows.to_h { |plant, effects| [plant.key, effects] }

      assert_equal Core::Knowledge.shipped.invaders.size, table.size
      assert_equal %i[harms harms kills kills holds harms pointless],
                   table["tree_of_heaven"].values_at("girdle", "cut_only", "hack_and_squirt", "basal_bark",
                                                     "limb_up_and_flag", "forestry_mulch", "aquatic_rake")
      said = table["amur_honeysuckle"].values_at("cut_stump", "cut_only", "survival_ring")

      assert_equal %i[kills harms pointless], said
    end

    # Digging what lives on by its rhizomes is not said to end nine in ten.
    def test_what_stays_sprouts
      dig = Core::Knowledge.shipped.removal("dig_crown")

      assert_operator dig.kill(Testing.plant("crown_vetch"))["likely"], :<, 60
      assert_equal dig.kill["likely"], dig.kill(Testing.plant("gamba_grass"))["likely"]
    end
  end
end
