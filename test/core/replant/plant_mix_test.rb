# frozen_string_literal: true

require "test_helper"

module Thistle
  # The mix against every mix that could be tried, its shares, its gaps; and seed by its tags.
  class ReplantMixTest < Minitest::Test
    Mix = Core::Replant::PlantMix
    Needs = Core::Replant::MixNeeds
    MONTHS = [5, 6, 7].freeze
    # A small palette: key, score, months, jobs, cost on a square metre.
    SMALL = [["little_bluestem", 3.1, [], 2.0], ["indiangrass", 2.4, [], 1.0], ["golden_alexanders", 2.9, [5], 3.0],
             ["black_eyed_susan", 3.3, [6, 7], 2.5], ["wild_bergamot", 2.2, [7], 4.0],
             ["field_thistle", 1.7, [], 0.5]].freeze

    def candidates(rows = SMALL)
      rows.map do |key, score, months, cost|
        Mix::Candidate.new(native: Core::Knowledge.shipped.native(key), score:, months:, cost:)
      end
    end

    def wish(**changes)
      Mix::Wish.new(kinds: 3, grass: [0.3, 0.6], most: 0.5, budget: nil, locks: [], bans: [], **changes)
    end

    def solve(asked = wish, rows: SMALL, jobs: %w[nectar slope])
      Mix.new(candidates(rows), asked, months: MONTHS, jobs:, m2: 100.0)
    end

    # What a division of the ground is worth, worked out apart from the programme.
    def worth(parts, asked, jobs)
      taken = parts.select { |_, n| n.positive? }
      gain = taken.sum do |one, n|
        most = usual(one, asked)
        Mix::KIND + (one.score / Mix::PARTS * ([n, most].min + (Mix::FURTHER * [n - most, 0].max)))
      end
      gain - shortages(taken.keys, asked, jobs)
    end

    # An even share, twice of what closes the ground, half of what stands tall or fills in, three quarters of flowers.
    def usual(one, asked)
      times = { "matrix" => 2.0, "season" => 0.75, "structure" => 0.5, "filler" => 0.5 }.fetch(one.native.role)
      (Mix::PARTS * times / asked.kinds).ceil.clamp(1, (asked.most * Mix::PARTS).floor)
    end

    def shortages(taken, asked, jobs)
      short = ->(least, &meets) { [least - taken.count(&meets), 0].max }
      natives = candidates.map(&:native)
      thirds = Needs.in_thirds(MONTHS)
      least = [3, (asked.kinds / 3.0).ceil].min
      MONTHS.sum { |month| Needs::MONTH * short.call(1) { |one| one.months.include?(month) } } +
        thirds.sum { |third| Needs::THIRD * short.call(least) { |one| one.months.intersect?(third) } } +
        jobs.sum { |job| Needs::JOB * short.call(1) { |one| one.native.jobs.include?(job) } } +
        (natives.map(&:layer).uniq & Needs::LAYERS).sum do |layer|
          Needs::LAYER * short.call(1) { |one| one.native.layer == layer }
        end +
        (Needs::ROOTS * (short.call(1) { |one| one.native.roots["depth_cm"] <= 60 } +
                       short.call(1) { |one| one.native.roots["depth_cm"] >= 80 }))
    end

    # Every division of the ground into quarters of a half-even share, by brute force.
    def best(asked, jobs)
      most = (asked.most * Mix::PARTS).floor
      candidates.combination(asked.kinds).flat_map do |some|
        leasts = some.map { |one| (usual(one, asked) / 2.0).ceil }
        divisions(leasts, most).map { |n| some.zip(n).to_h }
      end.select { |parts| kept?(parts, asked) }.map { |parts| worth(parts, asked, jobs) }.max
    end

    def divisions(leasts, most, left = Mix::PARTS)
      least, *others = leasts
      return left.between?(least, most) ? [[left]] : [] if others.empty?

      (least..most).flat_map { |n| divisions(others, most, left - n).map { |rest| [n, *rest] } }
    end

    def kept?(parts, asked)
      grass = parts.sum { |one, n| one.native.grassy? ? n : 0 }
      grass.between?((asked.grass[0] * Mix::PARTS).ceil, (asked.grass[1] * Mix::PARTS).floor) &&
        (asked.budget.nil? || parts.sum { |one, n| one.cost * 100.0 * n / Mix::PARTS } <= asked.budget + 1e-9)
    end

    def test_against_every_mix_that_could_be
      [wish, wish(budget: 210.0), wish(grass: [0.5, 0.7]), wish(most: 0.4, grass: [0.2, 0.4])].each do |asked|
        answer = solve(asked).answer

        assert answer.proved
        assert_in_delta best(asked, %w[nectar slope]), answer.worth, 1e-6
      end
    end

    def test_it_never_breaks_a_stated_share
      random = Random.new(7)
      natives = Core::Knowledge.shipped.palette.values.select(&:sown?)
      20.times do
        some = natives.sample(14, random:)
                      .map { |one| [one.key, random.rand(1.0..4.0), one.bloom, random.rand(1.0..5.0)] }
        asked = wish(kinds: random.rand(6..12), grass: [0.2, 0.5], most: 0.25, budget: 330.0)
        answer = solve(asked, rows: some).answer
        next if answer.impossible

        assert_equal Mix::PARTS, answer.items.sum(&:parts)
        assert_operator answer.items.map(&:share).max, :<=, 0.25
        assert_operator answer.items.select { |item| item.native.grassy? }.sum(&:share), :<=, 0.5
        assert_operator answer.cost, :<=, 330.0 + 1e-6
        assert_operator answer.items.size, :<=, asked.kinds
      end
    end

    def test_locks_bans_and_gaps
      answer = solve(wish(locks: ["field_thistle"], bans: ["golden_alexanders"])).answer

      assert_includes answer.keys, "field_thistle"
      refute_includes answer.keys, "golden_alexanders"
      may = answer.gaps.find { |gap| gap.about == :month && gap.what == 5 }

      refute may.possible
      bare = solve(rows: SMALL.drop(2), jobs: []).answer

      assert(bare.gaps.any? { |gap| gap.about == :grass })
      assert_equal :lock_lost, solve(wish(locks: ["yew"])).answer.impossible
      assert_equal :budget, solve(wish(budget: 1.0)).answer.impossible
      assert_equal :nothing_fits, solve(wish, rows: []).answer.impossible
      { area: [wish, 0.0], most: [wish(most: 0.2), 9.0], kinds: [wish(kinds: 0), 9.0] }.each do |field, (asked, m2)|
        error = assert_raises(Core::BadInput) { Mix.new(candidates, asked, months: MONTHS, jobs: [], m2:) }

        assert_equal field, error.field
      end
    end

    def test_what_one_more_would_buy
      offer = solve(wish(kinds: 2, most: 0.6)).one_more

      assert_includes offer.closes.map { |gap| [gap.about, gap.what] }, [:month, 5]
    end

    # On paper: 60 % little bluestem and 40 % black-eyed Susan on 500 m², at 346 live seeds on a square metre. Bluestem
    # 430 × 0.6 = 258 seeds/m², 129 000 seeds ÷ 530 = 243.4 g live, ÷ (0.9 × 0.8) = 338.1 g by its tag. Susan 220 × 0.4
    # = 88, 44 000 ÷ 3500 = 12.57 g live, without a tag and uncleaned ÷ (0.35 × 0.6) = 59.86 g.
    def test_seed_of_a_mix_by_its_tags
      items = { "little_bluestem" => 24, "black_eyed_susan" => 16 }.map do |key, parts|
        Mix::Item.new(native: Core::Knowledge.shipped.native(key), parts:)
      end
      lots = { "little_bluestem" => Core::Replant::SeedLot.new(purity: 0.9, germination: 0.8, cost_g: 0.1),
               "black_eyed_susan" => Core::Replant::SeedLot.new(cleaned: false) }
      rate = Core::Replant::SeedRate.new(number: 346.0)
      rows = Core::Replant::Amounts.new(items, m2: 500.0, kind: "seed", lots:, rate:).rows

      assert_in_delta 243.4, rows[0].pls_g, 0.05
      assert_in_delta 338.1, rows[0].bulk_g, 0.05
      assert_in_delta 33.81, rows[0].cost, 0.01
      assert_in_delta 59.86, rows[1].bulk_g, 0.01
      refute_predicate rows[1].lot, :tagged?
    end

    # CHECKS.md: broadcast 40 to 60 live seeds a square foot, drilled 20 to 40; eastern gamagrass 8 to 12 lb PLS an
    # acre; PLS = purity × (germination + hard or dormant). A rate in any unit comes to itself; spare parts add up.
    def test_how_thick_a_mix_is_sown
      items = { "little_bluestem" => 20, "black_eyed_susan" => 10, "eastern_gamagrass" => 10 }.map do |key, parts|
        Mix::Item.new(native: Core::Knowledge.shipped.native(key), parts:)
      end
      amounts = ->(some = items, **how) do
        Core::Replant::Amounts.new(some, m2: 1000.0, kind: "seed", rate: Core::Replant::SeedRate.new(**how))
      end

      assert_in_delta 50, amounts.call.rate_said["seeds_ft2"], 1e-6
      assert_in_delta 25, amounts.call(way: "drilled").rate_said["seeds_ft2"], 1e-6
      Core::Replant::SeedRate::UNITS.each_key do |unit|
        assert_in_delta 7.5, amounts.call(number: 7.5, unit:).rate_said[unit], 1e-6, unit
      end
      alone = Core::Knowledge.shipped.native("eastern_gamagrass")
      pounds = Core::Replant::SeedRate.said(alone.seeds_per_m2, alone.seeds_per_m2.fdiv(alone.seeds_per_g))["lb_ac"]

      assert_includes 8..12, pounds.round(1)
      assert_equal [:thin, nil, :thick], [10, 50, 200].map { |n| amounts.call(number: n, unit: "seeds_ft2").thickness }
      lot = Core::Replant::SeedLot.new(purity: 0.9, germination: 0.6, dormant: 0.3)

      assert_in_delta 0.81, lot.live
      assert_raises(Core::BadInput) { Core::Replant::SeedLot.new(purity: 0.9, germination: 0.8, dormant: 0.3) }
      assert_raises(Core::BadInput) { amounts.call(number: 9000, unit: "seeds_ft2").rows }
    end

    # CHECKS.md: seeds per square foot = lb/acre × seeds/lb ÷ 43 560, both ways round.
    def test_seeds_on_a_square_foot
      acre, pound = 4046.8564, 453.59237
      native = Core::Knowledge.shipped.native("indiangrass")
      row = Core::Replant::Amounts.new([Mix::Item.new(native:, parts: 40)], m2: acre, kind: "seed").rows.first
      per_ft2 = row.pls_g / pound * (native.seeds_per_g * pound) / 43_560

      assert_in_delta row.seeds_m2 * Core::Units::M2_PER_FT2, per_ft2, 0.01
    end

    def test_tags_that_cannot_be
      assert_raises(Core::BadInput) { Core::Replant::SeedLot.new(germination: 0.0) }
      old = Core::Replant::SeedLot.new(purity: 0.9, germination: 0.8, tested_on: Date.new(2025, 1, 1))

      assert old.out_of_date?(Date.new(2026, 5, 12))
      item = Mix::Item.new(native: Core::Knowledge.shipped.native("indiangrass"), parts: 40)
      error = assert_raises(Core::BadInput) do
        Core::Replant::Amounts.new([item], m2: 1.0, kind: "plugs", spacing_m: 2.0)
      end

      assert_equal :spacing, error.field
    end
  end
end
