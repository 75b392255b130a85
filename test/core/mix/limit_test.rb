# frozen_string_literal: true

require "test_helper"

module Thistle
  # A label's year by hand.
  class LimitTest < Minitest::Test
    Limit = Core::Mix::Limit

    def test_what_is_left
      one = Limit.new(acid: "triclopyr", lies: 600.0, planned: 300.0, most: 1000.0)

      assert_equal [900.0, false, 400.0], [one.after, one.over?, one.left]
      assert_predicate one.with(planned: 401.0), :over?
      refute_predicate one.with(planned: 400.0), :over?, "to the gram is within"
      assert_equal [0, nil, false], [one.with(lies: 1200.0).left, one.with(most: nil).left,
                                     one.with(most: nil, lies: 9e9).over?]
    end

    # Of two labels the stricter; what is only planned from an active, without a label, allows nothing and forbids
    # nothing.
    def test_of_several_labels_the_strictest
      active = Core::Knowledge.shipped.actives.values.first
      labels = [800.0, 500.0, nil].map do |most|
        Core::Mix::Product.new(name: "Can", ingredients: [Core::Mix::Ingredient.new(active:, most_g_per_ha: most)])
      end

      assert_equal({ active.acid => 500.0 }, Limit.allowed(labels))
      assert_empty Limit.allowed([])
    end
  end
end
