# frozen_string_literal: true

require "test_helper"

module Thistle
  class UnitsTest < Minitest::Test
    OZ = Core::Units::ML_PER_FL_OZ

    def test_units_both_ways
      us, metric = %w[us metric].map { |system| Core::Units.new(system) }

      assert_equal "1 ac", us.area(4046.8564224)
      assert_equal "1 gal", us.volume(128 * OZ)
      assert_equal "8.4 ha", metric.area(84_000)
      assert_equal "74 °F", us.temperature(23.5)
      assert_equal "1.5 ft", us.length(0.4572)
      assert_in_delta 100.0, us.from_si(:area, us.to_si(:area, 100.0))
      assert_equal "3\u202F232 m²", metric.area(3232.4)
      # By hand: 20 gal/ac is 75.708 L on 4046.86 m², 1.871 L on 100 m².
      assert_in_delta 1.871, us.to_si(:rate, 20), 0.001
      assert_equal "20 gal/ac", us.rate(1.8708)
      assert_raises(Core::BadInput) { Core::Units.new("cubits") }
    end

    # A limit is not rounded to the far side of it: 9.6 km/h is not 10, six miles an hour are six.
    def test_limits_keep_to_their_side
      metric, us = Core::Units.new, Core::Units.new("us")

      assert_equal ["9.6 km/h", "9.7 km/h"], [metric.most_wind(9.656), metric.least_wind(9.656)]
      assert_equal ["6 mph", "85 °F", "29.4 °C"], [us.most_wind(9.656), us.most_temperature(29.4444),
                                                   metric.most_temperature(29.4444)]
      assert_equal "at most 9.6 km/h", metric.fill("at most {most_wind:9.6}")
    end
  end
end
