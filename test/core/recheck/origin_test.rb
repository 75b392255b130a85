# frozen_string_literal: true

require "test_helper"

module Thistle
  # Where seedlings come from: by hand, and where the truth is known.
  class OriginTest < Minitest::Test
    Origin = Core::Recheck::Origin

    def rain = Core::Recheck::SeedRain.new(Core::Recheck::Stages.new(Core::Knowledge.shipped.plant("amur_honeysuckle")))

    def source(key, plants, distances, spent: 1.0)
      Origin::Source.new(key:, label: key, plants:, spent:, distances:)
    end

    # Bayes by hand: the ratio of two sources is that of plants × what lands at the distance.
    def test_odds_by_hand
      sources = [source("bank", 40, [3.0, 30.0], spent: 0.1), source("fence", 10, [60.0, 20.0])]
      bank, fence = Origin.new(rain, sources).shares.sort_by { |answer| answer.source.key }
      odds = (40 * 0.1 * rain.density(3.0)) / (10 * rain.density(60.0))

      assert_in_delta odds / (1 + odds), bank.of[0], 1e-12
      assert_operator fence.of[1], :>, bank.of[1]
      assert_in_delta 1.0, bank.share + fence.share, 1e-12
    end

    # Seedlings strewn from two sources by the same law: the shares come out.
    def test_shares_come_out_where_the_truth_is_known
      random = Random.new(2)
      strewn = ->(x, y) do
        metres = 1.5 * (-Math.log(random.rand) - Math.log(random.rand)) # mean 3 m, as seed falls that nothing carries
        turn = random.rand * 2 * Math::PI
        [x + (metres * Math.cos(turn)), y + (metres * Math.sin(turn))]
      end
      seedlings = Array.new(60) { strewn[0, 0] } + Array.new(20) { strewn[18, 0] }
      sources = { "old" => [0, 0], "fence" => [18, 0] }.map do |key, (x, y)|
        source(key, 10, seedlings.map { |a, b| Math.hypot(a - x, b - y) })
      end
      shares = Origin.new(rain, sources).shares.to_h { |answer| [answer.source.key, answer.share] }

      assert_in_delta 0.75, shares["old"], 0.05
    end

    def test_none_is_refused_and_one_from_nowhere_is_said
      assert_raises(Core::BadInput) { Origin.new(rain, []) }
      assert_raises(Core::BadInput) { Origin.new(rain, [source("bank", 3, [])]) }
      assert_equal [1], Origin.new(rain, [source("bank", 3, [2.0, 90_000.0])]).far
    end
  end
end
