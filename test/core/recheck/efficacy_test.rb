# frozen_string_literal: true

require "test_helper"

module Thistle
  # What methods kill here, against R, against the exact beta-binomial, and against crews whose share is known.
  class EfficacyTest < Minitest::Test
    Efficacy = Core::Recheck::Efficacy
    HANDBOOK = ->(_, _) { { "low" => 80, "likely" => 92, "high" => 98 } }

    def seen(treated, alive, plant: "a", method: "cut", **where)
      Efficacy::Seen.new(id: rand(1e9), plant:, method:, treated:, alive:, where:)
    end

    # R 4.2 for A / (A + B) and qbeta(c(.05, .95), A, B), which integrating the density gives as well; by that,
    # qbeta(c(.025, .975), A, B). A and B from 80, 92, 98 %, 2 alive of 20 and 24 of 60, each record worth
    # n × 13 ÷ (12 + n) stems.
    def test_the_posterior_against_r
      answer = Efficacy.new([seen(20, 2), seen(60, 24)], HANDBOOK).of("a", "cut")

      { mean: 0.809629378730, low: 0.661400194839, high: 0.922368611898 }.each do |what, figure|
        assert_in_delta figure, answer[what], 1e-6, what
      end
      assert_equal [80, 2], [answer.stems, answer.records]
      bare = Efficacy.new([], HANDBOOK).of("a", "cut")

      assert_in_delta 0.92, bare.mean, 1e-9
      assert_equal 0, bare.records
    end

    # Outside: the beta-binomial itself, summed over a grid of shares; the closed form is near it.
    def test_near_the_exact_beta_binomial
      records = [[30, 3], [12, 5], [80, 20], [8, 0]]
      answer = Efficacy.new(records.map { |treated, alive| seen(treated, alive) }, HANDBOOK).of("a", "cut")
      weights = (1..399).map { |n| [n / 400.0, exact(n / 400.0, records)] }
      top = weights.map(&:last).max
      weights.map! { |share, log| [share, Math.exp(log - top)] }
      mean = weights.sum { |share, weight| share * weight } / weights.sum(&:last)

      assert_in_delta mean, answer.mean, 0.03
    end

    # It lies between the handbook and the data, and more records narrow it on average.
    def test_shrinkage
      random = Random.new(3)
      60.times do
        records = Array.new(random.rand(1..6)) { random.rand(5..80).then { |n| seen(n, random.rand(0..n)) } }
        answer = Efficacy.new(records, HANDBOOK).of("a", "cut")
        shares = records.map(&:dead) << 0.92

        assert_includes (shares.min - 1e-9)..(shares.max + 1e-9), answer.mean
      end
      widths = [2, 8, 32].map do |count|
        answer = Efficacy.new(Array.new(count) { seen(30, 5) }, HANDBOOK).of("a", "cut")
        answer.high - answer.low
      end

      assert_equal widths.sort.reverse, widths
    end

    # Forty patches whose shares scatter about 70 % as the model says: recovered. A method that does worse on other
    # plants is doubted on a plant without records; the one bad batch among them stands out.
    def test_known_shares_are_recovered_and_lent
      random = Random.new(4)
      records = Array.new(40) do
        share = (0.7 + (0.11 * gauss(random))).clamp(0.05, 0.98)
        seen(40, Array.new(40) { random.rand }.count { |one| one > share })
      end
      efficacy = Efficacy.new(records, HANDBOOK)
      answer = efficacy.of("a", "cut")

      assert_in_delta 0.7, answer.mean, 0.05
      assert_operator efficacy.of("b", "cut").mean, :<, 0.9
      assert_in_delta 0.92, efficacy.of("b", "pull").mean, 1e-9
      bad = seen(60, 55)

      assert_includes Efficacy.new([*records, bad], HANDBOOK).odd, bad
      by = Efficacy.new([seen(30, 1, size: "thumb"), seen(30, 20, size: "wrist")], HANDBOOK).by("a", "cut", :size)

      assert_operator by["thumb"].mean, :>, by["wrist"].mean
    end

    # After one more record of a patch: as if all had been read again.
    def test_one_record_more_is_as_good_as_reading_all_again
      random = Random.new(3)
      all = Array.new(300) do |n|
        Efficacy::Seen.new(id: n, plant: %w[a b c].sample(random:), method: %w[cut pull].sample(random:), where: {},
                           treated: 10 + random.rand(40), alive: random.rand(10), patch: n % 40)
      end
      known = Efficacy.new(all, HANDBOOK)
      other = all.select { |one| one.patch == 7 }.drop(2) + [seen(30, 28, plant: "d").with(patch: 7)]
      again = Efficacy.new(all.reject { |one| one.patch == 7 } + other, HANDBOOK)
      known.cells.each { |cell| known.of(*cell) }
      found = known.with([7], other)

      assert_equal again.cells, found.cells
      again.cells.each do |cell|
        anew, moved = [again, found].map { |one| one.of(*cell) }
        %i[mean low high stems records].each { |what| assert_in_delta anew[what], moved[what], 1e-9 }
      end
      refute_includes known.cells, %w[d cut], "the one before is as it was"
    end

    private

    def gauss(random) = Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand)

    def exact(share, records)
      whole = 12.0
      a, b = 13.9233 * 0.92, 13.9233 * 0.08
      beta = ->(x, y) { Math.lgamma(x)[0] + Math.lgamma(y)[0] - Math.lgamma(x + y)[0] }
      prior = ((a - 1) * Math.log(share)) + ((b - 1) * Math.log(1 - share))
      prior + records.sum do |treated, alive|
        dead = treated - alive
        beta[(share * whole) + dead, ((1 - share) * whole) + alive] - beta[share * whole, (1 - share) * whole]
      end
    end
  end
end
