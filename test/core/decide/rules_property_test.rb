# frozen_string_literal: true

require "test_helper"

module Thistle
  # What must hold of the rules for any plant, ground and day.
  class RulesPropertyTest < Minitest::Test
    # A rule that never speaks is dead, and one that always says the same is no rule.
    def test_every_rule_speaks_in_some_situation_and_is_silent_in_another
      said = Hash.new { |hash, key| hash[key] = [] }
      situations.each do |situation, removals|
        removals.each do |removal|
          Core::Decide::Rule.all.select { |rule| rule.concerns?(removal) }
                            .each { |rule| said[rule.key] << rule.judge(situation, removal)&.kind }
        end
      end
      always = %i[utilities severed_vines water_work stance licence carrier_water stub_as_kept burn_permit every_piece
                  dry_season_cut]
      Core::Decide::Rule.all.each do |rule|
        assert_operator said[rule.key].compact.size, :>, 0, "#{rule.key} never speaks"
        unless always.include?(rule.key)
          assert_operator said[rule.key].uniq.size, :>, 1,
                          "#{rule.key} always says the same"
        end
      end
    end

    # No answer is a guess: whatever the situation, herbicide goes only with a licence, a stance and an answer about
    # water.
    def test_herbicide_never_goes_without_its_conditions
      random = Random.new(5)
      150.times do
        facts = random_facts(random)
        Core::Decide::Bench.new(facts, Testing.site).verdicts.select { |v| v.go? && v.removal.herbicide? }.each do
          assert facts.licensed
          refute_equal "none", facts.stance
          assert_empty (facts.zones || []).map(&:kind) & %w[no_spray well]
          water = facts.aquatic_label || (facts.water_m && facts.water_m >= Core::Decide::Facts::NEAR_WATER_M)

          assert water
          assert facts.settled
        end
      end
    end

    # A safety or legal no stays whatever else becomes known, unless the fact answers that rule.
    def test_more_facts_never_loosen_a_safety_rule
      random = Random.new(11)
      many_benches(random, 120) do |bench|
        facts = Core::Decide::Changes::CHANGEABLE.keys + %i[water_m slope natives_near footing]
        fact = facts.select { |one| bench.facts[one].nil? }.sample(random:) or next
        answer = Core::Decide::Changes::CHANGEABLE.dig(fact, 0)
        answer ||= { water_m: 300.0, slope: "flat", footing: "soil" }[fact]
        told = Core::Decide::Bench.new(bench.facts.with(fact => answer), bench.site)
        bench.removals.each do |removal|
          against = bench.verdict(removal).reasons.select { |reason| reason.kind == :no }
          binding = against.select { |reason| Core::Decide::Rule.named(reason.rule).binding? }
          binding.reject { |r| Core::Decide::Rule.named(r.rule).looks.include?(fact) }.each do
            assert_equal :no, told.kind(removal), "#{fact} made #{removal.key} go"
          end
        end
      end
    end

    # Where a wait ends is looked for only on days on which something turns: the same as trying every day of the year.
    def test_a_wait_ends_where_trying_every_day_ends_it
      tried = 0
      many_benches(Random.new(16), 80) do |bench|
        bench.verdicts.select(&:wait?).first(2).each do |verdict|
          outlook = Core::Decide::Projection.new(bench.facts, bench.site)
          rules = bench.facts.rules.for(verdict.removal)
          days = ((bench.facts.date + 1)..(bench.facts.date + 366))
          against = ->(rule, date) { rule.judge(outlook.on(date), verdict.removal)&.against? }
          first = days.find { |date| rules.none? { |rule| against[rule, date] } }
          tried += 1

          assert_equal first, verdict.until, "#{bench.facts.plant.key} #{verdict.removal.key}" if first
        end
      end
      assert_operator tried, :>, 20
    end

    def test_a_stricter_stance_never_allows_more
      many_benches(Random.new(12), 60) do |bench|
        none, stem, any = %w[none stem any].map do |stance|
          going(bench.facts.with(stance:), bench.site).select(&:herbicide?).map(&:key)
        end

        assert_empty none
        assert_empty stem - any
      end
    end

    def test_the_order_of_rules_never_matters
      random = Random.new(13)
      shuffled = Class.new(Core::Decide::RuleBook) do
        define_method(:for) { |removal| super(removal).shuffle(random:) }
        define_method(:rules) { super().shuffle(random:) }
      end
      told = ->(one) { [one.removal, one.kind, one.until, one.closes, one.reasons.map(&:rule).sort] }
      many_benches(random, 25) do |bench|
        other = Core::Decide::Bench.new(bench.facts.with(book: shuffled.new(off: [], local: [])), bench.site)

        assert_equal bench.verdicts.map(&told).sort_by(&:inspect), other.verdicts.map(&told).sort_by(&:inspect)
      end
    end

    # Each way that the bench offers, applied, is a go on the day it names; and no smaller part of it is.
    def test_what_would_change_it_is_true
      found = 0
      many_benches(Random.new(14), 60) do |bench|
        changes = Core::Decide::Changes.new(bench)
        bench.verdicts.reject(&:go?).each do |verdict|
          changes.of(verdict.removal).each do |way|
            found += 1
            again = bench.facts.with(**way.changed)
            opens = Core::Decide::Bench.new(again, bench.site).opens(verdict.removal) || verdict.until

            assert_equal way.date || bench.facts.date, opens, "#{verdict.removal.key}: #{way.words}"
          end
        end
      end
      assert_operator found, :>, 150
    end

    # A rule says the same of two situations that differ only in what it does not look at.
    def test_rules_look_at_nothing_else_than_they_say
      random = Random.new(15)
      carried = Core::Decide::Facts::CARRIED - %i[plant labels area_m2]
      swayed = situations.each_slice(2).first(200).flat_map do |(one, removals), (other, _)|
        removals.product(Core::Decide::Rule.all).select { |removal, rule| rule.concerns?(removal) }
                .filter_map do |removal, rule|
          changed = one.with(**other.to_h.slice(*(carried - rule.looks).sample(8, random:)))
          rule.key if rule.judge(one, removal)&.kind != rule.judge(changed, removal)&.kind
        end
      end

      assert_empty swayed.uniq
    end

    # A bench with other facts takes over what rules say that look at none of them: it says what one says that asks all.
    def test_other_facts_change_what_they_change
      random = Random.new(27)
      free = Core::Decide::Facts.members - %i[plant date stage soil book]
      many_benches(random, 150) do |bench|
        changed = random_facts(random).to_h.slice(*free.sample(random.rand(1..3), random:))
        taken, anew = [bench.with(**changed), Core::Decide::Bench.new(bench.facts.with(**changed), bench.site)]
                      .map { |one| said_by(one) }

        assert_equal anew, taken, changed.keys
      end
    end

    private

    def said_by(bench)
      { opens: bench.removals.to_h { |removal| [removal.key, bench.opens(removal)] },
        best: bench.best&.removal&.key, verdicts: bench.verdicts.map { |verdict| told(verdict) } }
    end

    def told(verdict)
      [verdict.removal.key, verdict.hours, verdict.hours_to_quiet, verdict.years_to_quiet,
       verdict.to_h.except(:removal, :effort).merge(reasons: verdict.reasons.map(&:to_h))]
    end

    def many_benches(random, count)
      count.times { yield Core::Decide::Bench.new(random_facts(random), Testing.site) }
    end

    def going(facts, site)
      bench = Core::Decide::Bench.new(facts, site)
      bench.removals.select { |removal| bench.kind(removal) == :go }
    end

    def random_facts(random)
      plants = random.rand < 0.07 ? Core::Knowledge.shipped.plants.values : Core::Knowledge.shipped.invaders
      Core::Decide::Facts.new(plant: plants.sample(random:), settled: [true, true, false].sample(random:),
                              date: Testing::TODAY + random.rand(0..360),
                              size: Core::Removal::SIZES.sample(random:), stance: %w[none stem any].sample(random:),
                              licensed: [true, true, false, nil].sample(random:),
                              aquatic_label: [true, false, nil].sample(random:),
                              water_m: [nil, 0.0, 5.0, 80.0].sample(random:),
                              slope: %w[flat slope steep].sample(random:),
                              natives_near: [true, false, nil].sample(random:),
                              cover: [nil, 15.0, 85.0].sample(random:), stems: 10, area_m2: 30.0,
                              freed_on: [nil, nil, Testing::TODAY - 40].sample(random:),
                              new_here: [nil, nil, nil, true].sample(random:), reported: [nil, true].sample(random:),
                              zones: [nil, nil, nil, [zone(random)]].sample(random:), schools: schools(random),
                              tools: [nil, nil, Core::Knowledge.shipped.kit.keys.sample(4, random:)].sample(random:),
                              crew: [nil, nil, 0, 1, 6].sample(random:),
                              footing: [nil, "soil", "rock"].sample(random:),
                              new_planting: [nil, nil, true].sample(random:),
                              burn_permit: [nil, true].sample(random:), fire_adapted: [nil, true].sample(random:),
                              full_cover: [nil, true].sample(random:), clean_site: [nil, true, false].sample(random:),
                              aim: [nil, *Core::Knowledge.shipped.aims.keys].sample(random:),
                              purpose: [nil, nil, :kill, :hold].sample(random:),
                              few: [nil, true, false].sample(random:),
                              belongs: [nil, nil, :weed, :both, :native, :elsewhere].sample(random:))
    end

    def schools(random)
      picked = Core::Knowledge.shipped.schools.transform_values { |school| school.options.keys.sample(random:) }
      Core::Decide::School.settle(picked.transform_keys(&:to_sym))
    end

    def zone(random)
      Core::Survey::Nearby.new(kind: Core::Knowledge.shipped.zone_kinds.keys.sample(random:), name: nil,
                               distance_m: [0.0, 8.0].sample(random:), keep_m: 10.0)
    end

    # Random facts on random days of the past year too, so that measured frost, wind and rain come up.
    def situations
      random = Random.new(2)
      Array.new(1200) do
        facts = random_facts(random)
        soil, date = [nil, :dry, :saturated, :frozen].sample(random:), Testing::TODAY - random.rand(0..360)
        bench = Core::Decide::Bench.new(facts.with(soil:, date:), Testing.site)
        [bench.situation, bench.removals]
      end
    end
  end
end
