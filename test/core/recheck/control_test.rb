# frozen_string_literal: true

require "test_helper"

module Thistle
  # Control, and the chance that it is still alive, against CHECKS.md.
  class ControlTest < Minitest::Test
    # CHECKS.md, Follow-up. Quantiles: R 4.2.2, qbeta(c(.05,.95),10,2), (60,6) and (1,65), run once and quoted.
    def test_beta_against_r
      r = { [10, 2] => [0.6356405, 0.9666808], [60, 6] => [0.8450446, 0.9590331],
            [1, 65] => [0.0007888163, 0.0450422581] }
      r.each do |(a, b), (low, high)|
        beta = Core::Recheck::Beta.new(a, b)

        assert_in_delta low, beta.quantile(0.05), 1e-6
        assert_in_delta high, beta.quantile(0.95), 1e-6
      end
      assert_in_delta 10 / 12.0, Core::Recheck::Control.of(treated: 10, alive: 1).mean / 100
    end

    def test_control
      found = Core::Recheck::Control.of(treated: 64, alive: 5)

      assert_in_delta 100 * 59 / 64.0, found.percent
      assert_in_delta 82.98, found.low, 0.01 # Wilson, 95 %: 59 of 64, worked apart
      assert_nil Core::Recheck::Control.of(treated: 0, alive: 0)
      assert_raises(Core::BadInput) { Core::Recheck::Control.of(treated: 3, alive: 4) }
    end

    # Abbott (1925): 100 × (1 − treated ÷ untreated). Range, 95 %: 100 * (1 - exp(d ± 1.959964 * s)) with
    # d = log(6.5/60.5) - log(45.5/50.5), s = sqrt(1/6.5 - 1/60.5 + 1/45.5 - 1/50.5).
    def test_against_untreated_ground
      found = Core::Recheck::Control.of(treated: 60, alive: 6, untreated: 50, untreated_alive: 45).corrected

      assert_in_delta 88.888889, found[:percent], 1e-6
      assert_in_delta 75.2057, found[:low], 1e-3
      assert_in_delta 94.2651, found[:high], 1e-3
      assert_nil Core::Recheck::Control.of(treated: 60, alive: 6, untreated: 50, untreated_alive: 0).corrected
      assert_raises(Core::BadInput) do
        Core::Recheck::Control.of(treated: 60, alive: 6, untreated: 5, untreated_alive: 6)
      end
    end

    # CHECKS.md: p = 0.5, d = 0.8: 0.5, 0.1667, 0.0385, 0.0079, 0.0016 for n = 0..4.
    def test_chance_alive
      assert_equal [0.5, 0.1667, 0.0385, 0.0079, 0.0016], (0..4).map { |n| Core::Recheck::Alive.chance(n).round(4) }
      assert_equal 2, (0..50).find { |n| Core::Recheck::Alive.chance(n) < 0.05 }
    end
  end
end
