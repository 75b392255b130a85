# frozen_string_literal: true

require "test_helper"

module Thistle
  # Outside: the tables of any handbook (recalled), and R's pnorm and qnorm of the same numbers.
  class NormalTest < Minitest::Test
    Normal = Core::Normal
    TABLE = { -1.0 => 0.1586552539, 0.0 => 0.5, 0.5 => 0.6914624613, 1.0 => 0.8413447461, 2.0 => 0.9772498681,
              3.0 => 0.9986501020 }.freeze

    def test_it_is_that_of_the_tables
      TABLE.each do |number, share|
        assert_in_delta share, Normal.cumulative(number), 1e-9
        assert_in_delta number, Normal.quantile(share), 1e-7
      end
      { Normal::Z80 => 0.90, Normal::Z90 => 0.95, Normal::Z95 => 0.975 }.each do |z, share|
        assert_in_delta share, Normal.cumulative(z), 1e-12
      end
    end

    def test_what_is_drawn_has_its_mean_and_spread
      random = Random.new(3)
      drawn = Array.new(40_000) { Normal.draw(random) }

      assert_in_delta 0.0, drawn.sum / drawn.size, 0.015
      assert_in_delta 1.0, drawn.sum { |x| x * x } / drawn.size, 0.03
      assert_in_delta 0.8, drawn.count { |x| x.abs <= Normal::Z80 } / drawn.size.to_f, 0.01
    end
  end
end
