# frozen_string_literal: true

require "test_helper"
require_relative "../../bench/specimens"

module Thistle
  # What must hold for anything random: specimens, situations, files.
  class PropertyTest < Minitest::Test
    Key = Core::Identify::Key

    # Volunteers answering only what is suggested, each look misread at its error rate, in a random month.
    # `rake bench` walks 50 of each plant and prints the table; here a few of each hold the same bars.
    def test_volunteers_reach_the_right_name_and_settle_no_wrong_one
      specimens = Specimens.new(site: Testing.site, random: Random.new(11))
      walks = Core::Knowledge.shipped.plants.values.flat_map { |plant| Array.new(2) { specimens.walk(plant) } }
      settled = walks.select(&:settled?)
      leads = walks.map { |walk| walk.lead || 99 }.sort

      assert_operator walks.count(&:right?), :>=, 0.95 * walks.size
      assert_operator leads[leads.size / 2], :<=, 7
      assert_operator settled.size, :>, 0.3 * walks.size
      assert_operator settled.count { |walk| !walk.right? }, :<, 0.01 * walks.size
      assert((walks - settled).all? { |walk| walk.key.settlement.reasons.any? })
    end

    def test_a_plant_that_the_library_does_not_know_is_hardly_ever_settled
      walks = Core::Knowledge.shipped.plants.values.each_slice(3).map(&:first).flat_map do |plant|
        specimens = Specimens.new(site: Testing.site, random: Random.new(7), knowledge: Core::Knowledge.shipped.without(plant.key))
        Array.new(2) { specimens.walk(plant) }
      end

      assert_operator walks.count(&:settled?), :<, 0.03 * walks.size, walks.select(&:settled?).map { |w| "#{w.plant.key} as #{w.named.key}" }.join(", ")
    end

    # A rule that never speaks is dead, and one that always says the same is no rule.
    def test_every_rule_speaks_in_some_situation_and_is_silent_in_another
      said = Hash.new { |hash, key| hash[key] = [] }
      situations.each do |situation, removals|
        removals.each do |removal|
          Core::Decide::Rule.all.select { |rule| rule.concerns?(removal) }.each { |rule| said[rule.key] << rule.judge(situation, removal)&.kind }
        end
      end
      always = %i[utilities severed_vines water_work stance licence]
      Core::Decide::Rule.all.each do |rule|
        assert_operator said[rule.key].compact.size, :>, 0, "#{rule.key} never speaks"
        assert_operator said[rule.key].uniq.size, :>, 1, "#{rule.key} always says the same" unless always.include?(rule.key)
      end
    end

    # No answer is a guess: whatever the situation, herbicide goes only with a licence, a stance and an answer about water.
    def test_herbicide_never_goes_without_its_conditions
      random = Random.new(5)
      150.times do
        choices = random_choices(random)
        Core::Decide::Bench.new(choices, Testing.site).verdicts.select { |v| v.go? && v.removal.herbicide? }.each do
          assert choices.licensed
          refute_equal "none", choices.stance
          assert_empty (choices.zones || []).map(&:kind) & %w[no_spray well]
          water = choices.aquatic_label || (choices.water_m && choices.water_m >= Core::Decide::Choices::NEAR_WATER_M)

          assert water
          assert choices.settled
        end
      end
    end

    def test_random_bytes_are_refused_in_words
      random = Random.new(9)
      200.times do
        bytes = ["{", "<kml>", "<gpx>", ""].sample(random:) + random.bytes(random.rand(1..400))
        error = assert_raises(Core::BadInput) { Formats::Reader.read(bytes) }
        assert_equal :file, error.field
      end
    end

    # The mix adds up whatever is asked: stock and carrier make the total, full loads and the last make it too.
    def test_mixes_add_up
      random = Random.new(3)
      200.times do
        active = Core::Knowledge.shipped.actives.values.sample(random:)
        answer = Core::Mix::Batch.new(active:, target: random.rand(0.1..active.stock), total_ml: random.rand(1.0..90_000.0), container_ml: random.rand(50.0..20_000.0)).answer

        assert_in_delta answer.total_ml, answer.stock_ml + answer.carrier_ml, 1e-6
        assert_in_delta answer.total_ml, ((answer.loads - 1) * answer.load_ml) + answer.last_load_ml, 1e-6
        assert_operator answer.last_load_ml, :>, 0
        assert_in_delta answer.target, answer.stock_ml * active.stock / answer.total_ml, 1e-9
      end
    end

    private

    def random_choices(random)
      Core::Decide::Choices.new(plant: Core::Knowledge.shipped.invaders.sample(random:), settled: [true, true, false].sample(random:), date: Testing::TODAY + random.rand(0..360),
                                size: Core::Removal::SIZES.sample(random:), stance: %w[none stem any].sample(random:), licensed: [true, true, false, nil].sample(random:),
                                aquatic_label: [true, false, nil].sample(random:), water_m: [nil, 0.0, 5.0, 80.0].sample(random:), slope: %w[flat slope steep].sample(random:),
                                natives_near: [true, false, nil].sample(random:), cover: [nil, 15.0, 85.0].sample(random:), stems: 10, area_m2: 30.0,
                                freed_on: [nil, nil, Testing::TODAY - 40].sample(random:), new_here: [nil, nil, nil, true].sample(random:), reported: [nil, true].sample(random:),
                                zones: [nil, nil, nil, [zone(random)]].sample(random:))
    end

    def zone(random)
      Core::Survey::Nearby.new(kind: Core::Knowledge.shipped.zone_kinds.keys.sample(random:), name: nil, distance_m: [0.0, 8.0].sample(random:), keep_m: 10.0)
    end

    # Random choices on random days of the past year too, so that measured frost, wind and rain come up.
    def situations
      random = Random.new(2)
      Array.new(500) do
        choices = random_choices(random)
        bench = Core::Decide::Bench.new(choices.with(soil: [nil, :dry, :saturated, :frozen].sample(random:), date: Testing::TODAY - random.rand(0..360)), Testing.site)
        [bench.situation, bench.removals]
      end
    end
  end
end
