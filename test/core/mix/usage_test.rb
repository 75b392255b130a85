# frozen_string_literal: true

require "test_helper"

module Thistle
  # How much stems take, against R; the batch of least cost, against simulation; the alarm after a day on stubs.
  class UsageTest < Minitest::Test
    Mix = Core::Mix
    QLNORM = { 0.1 => 0.698529536376, 0.5 => 1.181730359623, 0.9 => 1.999180521556, 0.975 => 2.640733215383 }.freeze
    PLNORM_2 = 0.900175203194

    # Predictive quantiles and chances of six records, worked in R 4.2 (qlnorm, plnorm) with
    # x <- log(c(1.4, 1.1, 1.9, 0.8, 1.6, 1.2)); w <- 3; n <- 6; m <- (w * log(1) + sum(x)) / (w + n)
    # s <- sqrt((w * 0.25 + sum((x - mean(x))^2)) / (w + n - 1) * (1 + 1 / (w + n)))
    def test_quantiles_against_r
      usage = Mix::Usage.new(1.0, [1.4, 1.1, 1.9, 0.8, 1.6, 1.2])

      QLNORM.each { |share, value| assert_in_delta value, usage.quantile(share), 1e-6 }
      assert_in_delta PLNORM_2, usage.cumulative(2.0), 1e-6
      assert_predicate usage, :own?
    end

    # Without records it is what was planned; with many, what was seen.
    def test_records_pull
      random = Random.new(1)
      normal = -> { Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand) }
      many = Mix::Usage.new(1.0, Array.new(2000) { Math.exp(Math.log(2.5) + (0.3 * normal.call)) })

      assert_in_delta 1.0, Mix::Usage.new(1.0).median
      assert_in_delta 2.5, many.median, 0.05
      assert_in_delta 0.3, many.spread, 0.02
      assert_operator Mix::Usage.new(1.0).low, :<, 0.6
    end

    # The batch of least cost, its chance and its leftover against 40 000 days thrown.
    def test_batch_size_against_simulation
      usage = Mix::Usage.new(1.0)
      size = Mix::BatchSize.new(stems: 85, usage:, litre: 60.0, walk: 8.0)
      random = Random.new(2)
      needs = Array.new(40_000) do
        z = Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand)
        85 * Math.exp(usage.middle + (usage.spread * z))
      end
      cost = ->(ml) { needs.sum { |need| need > ml ? 8.0 : (ml - need) / 1000 * 60.0 } / needs.size }
      best = size.best

      assert_in_delta needs.count { |need| need <= best.ml } / needs.size.to_f, best.enough, 0.01
      assert_in_delta cost.call(best.ml), best.cost, best.cost * 0.01
      size.points.each_slice(20) { |some| assert_operator cost.call(some.first.ml), :>, best.cost * 0.99 }
      dear = Mix::BatchSize.new(stems: 85, usage:, litre: 400.0, walk: 8.0).best

      assert_operator dear.ml, :<, best.ml, "what is dear is not carried to spare"
    end

    # By hand: 2 L at 50 % are 1000 mL of product, 355.14 g of acid; 85 to 95 % of it on the stubs, 5 to 15 % beside.
    def test_what_falls_beside
      active = Core::Knowledge.shipped.actives["glyphosate_ipa"]
      main = Mix::Ingredient.new(active:, percent: 41.0, grams_per_litre: 479.3)
      cut, spray = %w[cut_stump foliar_spot].map { |key| Core::Knowledge.shipped.removal(key) }
      found = Mix::OffTarget.of(cut, Mix::Product.new(ingredients: [main]), litres: 2.0, percent: 50.0)

      assert_in_delta 355.14, found.acid_g, 0.01
      assert_in_delta 355.14 * 0.05, found.off_target.first, 0.01
      assert_in_delta found.acid_g, found.on_target.first + found.off_target.last
      planned = Mix::OffTarget.of(spray, Mix::Product.planned(active, 50.1), litres: 2.0, percent: 2.0)

      assert_nil planned.acid_g
      assert_in_delta 40, planned.amount
      assert_nil Mix::OffTarget.of(Core::Knowledge.shipped.removal("hand_pull"), nil, litres: 1, percent: 1)
    end

    # By hand: 95 stubs that usually take 1 mL each, spread 0.5: 40 mL did about 40 of them, 95 fits, 300 is heavy.
    def test_the_alarm
      check = ->(used) { Mix::StubCheck.new(used_ml: used, stems: 95, usage: Mix::Usage.new(1.0)).finding }

      assert_equal [:short, 40], check.call(40.0).then { |found| [found.kind, found.enough_for] }
      assert_equal :fits, check.call(95.0).kind
      assert_equal :heavy, check.call(300.0).kind
      assert_nil check.call(0.0)
      assert_operator check.call(40.0).high, :<, 95
    end
  end
end
