# frozen_string_literal: true

require "test_helper"
require "support/climates"

module Thistle
  # When to plant and what becomes of it: water, odds, survival, frames, spacing, ways to make ground ready, own seed.
  class ReplantEstablishmentTest < Minitest::Test
    Replant = Core::Replant
    Establishment = Replant::Establishment

    # CHECKS.md: Wilson's 95 % interval of 42 of 60 is 57.5 to 80.1 %. The mean is (0.75 × 6 + 42) ÷ 66, six plants of a
    # planning value; with few counts it never leaves what was counted.
    def test_survival
      survival = Establishment.survival("plugs", alive: 42, counted: 60)

      assert_in_delta 46.5 / 66, survival.mean, 1e-9
      assert_equal [57.5, 80.1], [survival.low, survival.high].map { |share| (100 * share).round(1) }
      none = Establishment.survival("plugs", alive: 0, counted: 10)

      assert_in_delta none.high, none.mean
      assert_nil Establishment.survival("plugs", alive: 0, counted: 0).low
      planned = Establishment.survival("plugs", alive: 0, counted: 0)

      assert_equal [0.75, "memory"], [planned.mean, planned.source]
      assert_raises(Core::BadInput) { Establishment.survival("plugs", alive: 5, counted: 4) }
    end

    # Cochran (1977): n0 = 1.96² × 0.5 × 0.5 / 0.1² = 96.04, rounded up 97; of 341 plants 96.04 / (1 + 95.04/341) =
    # 75.1. Frames: (1.96 × spread / 0.1)².
    def test_how_many_are_enough
      assert_equal [97, 76, 8], [Establishment.enough(10**9), Establishment.enough(341), Establishment.enough(8)]
      frames = [5, 20, 35, 20, 5, 35, 20]
      cover = Establishment.cover(frames, kind: "plugs", year: 1)
      spread = Math.sqrt(frames.sum { |one| (one - 20)**2 } / 6.0) / 100

      assert_equal ((1.96 * spread / 0.1)**2).ceil, cover.enough
      assert_equal [:expected, 20], [cover.word, (cover.mean * 100).round]
      assert_equal :behind, Establishment.cover([2, 1, 3], kind: "seed", year: 3).word
      assert_raises(Core::BadInput) { Establishment.cover([120], kind: "seed", year: 1) }
    end

    # 100 plugs of which half live: 80 are to stand, 30 are missing, 60 go in so that 30 of them live.
    def test_how_many_go_in_again
      half = Establishment::Survival.new(mean: 0.5)

      assert_equal [60, 0], [Establishment.again(100, half), Establishment.again(100, half.with(mean: 0.9))]
    end

    # Discs on a lattice: full at d = 2s/√3, π/√12 where they touch (Thue), and what a hundred thousand darts say.
    def test_cover_of_crowns_on_a_lattice
      cover = Replant::Closing.method(:cover)

      assert_in_delta Math::PI / Math.sqrt(12), cover[1.0, 1.0], 1e-9
      assert_in_delta 1.0, cover[(2 / Math.sqrt(3)) - 1e-9, 1.0], 1e-6
      random = Random.new(3)
      hit = Array.new(100_000) { [random.rand * 20, random.rand * 20 * Math.sqrt(3)] }.count do |x, y|
        near = [[0, 0], [0.5, Math.sqrt(3) / 2]].map do |dx, dy|
          [((x - dx + 0.5) % 1) - 0.5, ((y - dy + (Math.sqrt(3) / 2)) % Math.sqrt(3)) - (Math.sqrt(3) / 2)]
        end
        near.any? { |a, b| (a**2) + (b**2) <= 0.55**2 }
      end

      assert_in_delta hit / 100_000.0, cover[1.1, 1.0], 0.005
    end

    def test_spacing_has_a_least_and_closer_closes_sooner
      closing = Replant::Closing.new(width_m: 0.45, price: 4, wage: 25)
      costs = closing.choices.map(&:cost)

      assert_equal costs.min, closing.best.cost
      assert_operator closing.best.spacing, :>, closing.choices.first.spacing
      assert_operator closing.best.spacing, :<, closing.choices.last.spacing
      assert_operator closing.at(0.3).closes, :<, closing.at(0.5).closes
      dear = Replant::Closing.new(width_m: 0.45, price: 4, wage: 60)

      assert_operator dear.best.spacing, :<, closing.best.spacing, "dear hours: plant closer"
    end

    # Loam holds 48 mm in 30 cm: 1.6 mm a cm, 12.8 in the first 8 cm. A day that could take 5 mm takes of a new plant
    # about 0.35 of that; what is poured is what was missing.
    def test_water_that_roots_reach
      roots = Replant::RootWater.new("loam")
      roots.pass(5.0, 0.0, 1.0)
      holds = 1.6 * (8 + (37 / 120.0))
      lost = 5.0 * (0.35 + (0.45 / 120))

      assert_in_delta 1 - (lost / holds), roots.fill, 1e-9
      assert_in_delta lost, roots.water, 1e-9
      assert_in_delta 1.0, roots.fill
      30.times { roots.pass(6.0, 0.0, 0.2) }

      assert_predicate roots, :thirsty?
      100.times { roots.pass(4.0, 20.0, 1.0) }
      refute_predicate roots, :thirsty?
    end

    # A mild autumn asks less water than midsummer, and a November planting is lifted by frost.
    def test_odds_of_the_planting_weeks
      odds = Replant::PlantingOdds.new(Testing.site)
      july, october, december = [[7, 1], [9, 25], [12, 1]].map { |month, day| odds.week(Date.new(2026, month, day)) }

      assert_operator october.waterings.sum, :<, july.waterings.sum
      assert_operator december.lifted, :>, october.lifted
      assert_operator october.usual, :<=, october.nine_in_ten
      assert_operator october.nine_in_ten, :<=, october.worst
      coast = Replant::PlantingOdds.new(Climates.site("coast"))
      rains, dry = [coast.week(Date.new(2026, 11, 10)), coast.week(Date.new(2026, 5, 20))]

      assert_operator rains.usual, :<=, dry.usual, "with the rains, not into the dry"
    end

    def ground(**facts)
      Replant::Readying::Ground.new(plant: nil, m2: 200.0, slope: "flat", stance: "any", lines: "no", kind: "plugs",
                                    light: "sun", wage: 20.0, **facts)
    end

    def words(by: Date.new(2027, 4, 10), **facts)
      Replant::Readying.new(ground(**facts), Testing.site, by:).rows.to_h { |row| [row.key, row.word] }
    end

    def test_ways_to_make_ground_ready
      assert_equal %w[wait], words(slope: "steep").select { |_, word| word == :go }.keys
      bindweedy = Core::Knowledge.shipped.plant("japanese_knotweed")

      assert_equal :no, words(plant: bindweedy)["till"]
      assert_equal %i[no ask no], [{ stance: "none" }, {}, { stance: "stem" }].map { |facts| words(**facts)["spray"] }
      assert_equal %i[no ask], [false, nil].map { |burned| words(fire_adapted: burned)["burn"] }
      assert_equal %i[no no], [words(kind: "seed")["smother"], words(light: "shade")["solarise"]]
      assert_equal :ask, words(lines: nil)["till"]
      assert_equal :no, words(undug: "old quarry")["strip"]
      assert_equal :no, words(by: Testing.site.today + 7)["cover"], "too late for it"
    end

    # A tenth of 200 plants with 300 seeds each of 385 in a gram (indiangrass) is 15.6 g; of 20 plants none.
    def test_gathering_our_own
      grass = Core::Knowledge.shipped.native("indiangrass")
      gathering = Replant::Gathering

      assert_in_delta 15.58, gathering.most_g(grass, plants: 200, seeds_each: 300), 0.01
      assert_in_delta 0.0, gathering.most_g(grass, plants: 20, seeds_each: 300)
      window = gathering.new(Testing.site).window(grass)

      assert_operator window.from, :>, Date.new(2026, 8, 1)
      kept = %w[jewelweed indiangrass].map { |key| gathering.keeping(Core::Knowledge.shipped.native(key)) }

      assert_equal %i[moist dry], kept
      south = gathering.new(Climates.site("tropics")).window(Core::Knowledge.shipped.native("perennial_sorghum"))

      assert south
    end
  end
end
