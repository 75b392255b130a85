# frozen_string_literal: true

require "test_helper"

module Thistle
  # One reader of numbers for forms and files.
  class DecimalTest < Minitest::Test
    READ = { "3.5" => 3.5, "3,5" => 3.5, "−3.5" => -3.5, "1 200" => 1200.0, "1\u202F200" => 1200.0, "0,125" => 0.125,
             "1,200,000" => 1_200_000.0, "1,200.5" => 1200.5, "12,5" => 12.5, "1,2345" => 1.2345, "1'200" => 1200.0,
             "" => nil, "three" => nil, "1,200" => nil, "-1,200" => nil, "1e400" => nil }.freeze

    def test_numbers_as_people_write_them
      assert_equal READ, READ.keys.to_h { |text| [text, Core::Decimal.read(text)] }
    end

    # A comma before three digits is asked about, but where everybody parts thousands with it, and in coordinates.
    def test_a_doubtful_comma
      assert_equal [1200.0, 1.2], %i[thousands decimal].map { |comma| Core::Decimal.read("1,200", comma:) }
      assert Core::Decimal.doubtful?("1,200")
      refute Core::Decimal.doubtful?("0,200")
      assert_equal(%i[thousands ask], %w[us metric].map { |system| Core::Units.new(system).comma })
    end
  end
end
