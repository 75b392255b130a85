# frozen_string_literal: true

require_relative "../../test_helper"
require "yaml"

module Thistle
  # The phases of every invader, held against a reading of floras that was written down before (test/fixtures/years.yml,
  # recalled): each within four weeks, its end within five.
  class YearsTest < Minitest::Test
    # Fruit, pods and heads that hang through winter are there in the main season of stump work (a second reading of
    # values, from memory).
    HANGS = %w[chinese_privet japanese_barberry multiflora_rose tree_of_heaven chinaberry russian_olive princess_tree
               common_reed black_locust sericea_lespedeza oriental_bittersweet common_buckthorn english_holly
               rhododendron_ponticum common_teasel cut_leaved_teasel common_mullein purple_loosestrife diffuse_knapweed
               clumping_liriope creeping_liriope amur_honeysuckle japanese_honeysuckle wintercreeper callery_pear
               kudzu].freeze

    READ = YAML.safe_load_file(File.join(__dir__, "../../fixtures/years.yml")).freeze
    KNOWN = {} # rubocop:disable Style/MutableConstant -- places, made once for all tests here
    PHASES = { "leaf" => :leaf, "flower" => :flower, "ripe" => :ripe_seed }.freeze
    HOLD = { "leaf" => 0.95, "flower" => 0.95, "ripe" => 0.95 }.freeze # of each that have to fit
    SLACK = { from: 28, to: 35 }.freeze
    # Places whose year is not that of the middle of their region: what a year there is made of (memory).
    PLACES = { "sydney" => [-33.9, { "mean" => 17.8, "swing" => 5.3, "range" => 8.5, "wind" => 12, "wet_days" => 0.33,
                                     "rain" => [100, 115, 125, 125, 115, 130, 85, 80, 65, 75, 85, 80],
                                     "south" => true }],
               "puget" => [47.6, { "mean" => 11.3, "swing" => 7, "range" => 8, "wind" => 12,
                                   "wet_days" => [0.55, 0.5, 0.5, 0.45, 0.35, 0.28, 0.12, 0.14, 0.25, 0.4, 0.55, 0.57],
                                   "rain" => [140, 95, 100, 70, 48, 38, 16, 20, 40, 90, 150, 145] }] }.freeze

    def test_phases_fall_where_floras_have_them
      found = READ.flat_map { |key, places| places.flat_map { |place, said| held(Testing.plant(key), place, said) } }
      PHASES.each_key do |name|
        rows = found.select { |phase, *| phase == name }
        wrong = rows.reject { |_, fits, _| fits }.map(&:last)
        share = 1 - (wrong.size / rows.size.to_f)
        assert_operator share, :>=, HOLD[name], "#{name}, #{rows.size} rows:\n#{wrong.join("\n")}"
      end
    end

    # Whatever the climate, even where a plant is not at home: nothing ripens before it flowers, none lasts no time.
    def test_phases_follow_each_other_in_every_climate
      StandIns::Grounds::CLIMATES.each do |climate, region|
        site = place(region || climate)
        Core::Knowledge.shipped.plants.each_value do |plant|
          spans = site.calendar(plant).spans(site.year).select { |span| span.from <= site.year.finish }
          spans.each { |span| assert_operator span.to, :>=, span.from, "#{plant.key}, #{climate}, #{span.phase}" }
        end
      end
    end

    def test_seed_that_hangs_through_winter_is_there_in_january
      site = place("na_midwest")
      calendar = site.calendar(Testing.plant("multiflora_rose"))
      assert_includes calendar.phases_on(Date.new(2026, 1, 15)), :ripe_seed
      spell = calendar.spells(:ripe_seed, Date.new(2026, 1, 1), Date.new(2026, 1, 31)).first
      assert_equal 2025, spell.from.year # one spell, that began the autumn before
      assert_operator spell.done_early, :<, spell.done_late
      refute_includes calendar.phases_on(Date.new(2026, 1, 15)), :emerging
      falls = [[2026, 1, 15], [2026, 5, 1], [2026, 10, 1]].map do |day|
        Core::Recheck::SeedFall.expected(calendar, Date.new(*day))
      end

      assert_equal %w[falling none falling], falls # of last year's fruit in January
    end

    def test_what_hangs_through_winter_is_there_in_january
      site = StandIns::Grounds.of("frost", today: Date.new(2026, 5, 12))
      bare = HANGS.reject do |key|
        site.calendar(Core::Knowledge.shipped.plant(key)).phases_on(Date.new(2027, 1, 15)).include?(:ripe_seed)
      end

      assert_empty bare
    end

    private

    def place(key)
      KNOWN[key] ||= if PLACES.key?(key)
                       latitude, weather = PLACES[key]
                       StandIns::Grounds.place(weather, latitude:, today: Testing::TODAY)
                     else
                       StandIns::Grounds.of(key, today: Testing::TODAY)
                     end
    end

    # [[phase, does it fit?, what was read and what was worked out]] of one plant at one place.
    def held(plant, key, said)
      said.flat_map do |name, spells|
        calendar = place(key).calendar(plant)
        spells.to_s.split.map do |text|
          from, to = text.split("-").map { |months| day(months.to_f) }
          near = nearest(calendar.spells(PHASES[name], from - 60, to + 60), from, to)
          fits = !near.nil? && (near.from - from).abs <= SLACK[:from] && (near.to - to).abs <= SLACK[:to]
          [name, fits, "#{plant.key}, #{key}: read #{from} to #{to}, worked out #{near&.from} to #{near&.to}"]
        end
      end
    end

    def nearest(spells, from, to)
      spells.select { |span| span.from <= to && span.to >= from }
            .min_by { |span| (span.from - from).abs + (span.to - to).abs }
    end

    def day(months)
      year, month = (months - 1).divmod(12)
      Date.new(2026 + year.to_i, month.floor + 1) + ((month % 1) * 30.4).round
    end
  end
end
