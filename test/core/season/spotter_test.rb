# frozen_string_literal: true

require "test_helper"

module Thistle
  # Marks of a year that is made for it, found by hand: frost until day 100 and from day 300, warmth of 10 degree days a
  # day from day 60, dry from 150 to 219, frozen ground from 320.
  class SpotterTest < Minitest::Test
    Kind = Core::Season::AnchorKind

    def setup
      start = Date.new(2026, 1, 1)
      days = Array.new(365) do |n|
        cold = n <= 100 || n >= 300
        mean = n >= 60 && n < 300 ? 15.0 : 2.0
        Core::Season::Day.new(date: start + n, tmin: cold ? -3.0 : 5.0, tmax: (2 * mean) - (cold ? -3.0 : 5.0),
                              rain: n.between?(220, 222) ? 20.0 : 0.0)
      end
      soils = Array.new(365) do |n|
        if n.between?(150, 219)
          :dry
        else
          (n >= 320 ? :frozen : :moist)
        end
      end
      @spotter = Core::Season::Spotter.new(days, soils, dry_middle: 185, seen: {})
      @seen = Core::Season::Spotter.new(days, soils, dry_middle: 185, seen: { 70 => 100.0 })
    end

    def find(by, spotter: @spotter, **more) = spotter.find(Kind.new(key: [by, more].hash, by:, **more))

    def test_warmth_frost_and_ground
      assert_equal 60 + 24, find("warmth", degree_days: 250), "ten a day from day 60: the 25th of them"
      assert_equal 70 + 15, find("warmth", degree_days: 250, spotter: @seen), "counted on from what somebody saw"
      assert_nil find("warmth", degree_days: 99_999)
      assert_equal [100, 300, 302], [find("frost", at: 0.0, nth: "last"), find("frost", at: 0.0, nth: 1),
                                     find("frost", at: 0.0, nth: 3)]
      assert_equal [320, nil], [find("frozen", days: 5), find("frozen", days: 60)]
    end

    # 40 mm within three days are there on the second of them.
    def test_rain
      assert_equal 221, find("rains", mm: 40.0, within: 3)
      assert_nil find("rains", mm: 61.0, within: 3)
    end
  end
end
