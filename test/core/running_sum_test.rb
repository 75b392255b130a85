# frozen_string_literal: true

require "test_helper"

module Thistle
  class RunningSumTest < Minitest::Test
    def reaching(least, items, **from) = Core::RunningSum.reaching(least, items, **from) { |item| item }

    def test_the_item_that_reaches_it
      assert_equal [3, 1, nil], [reaching(6, [1, 2, 3, 4]), reaching(0.5, [1, 2]), reaching(11, [1, 2, 3, 4])]
      assert_equal [2, nil], [reaching(6, [1, 2, 3], from: 3.0), reaching(1, [])]
    end
  end
end
