# frozen_string_literal: true

require "test_helper"
require "support/climates"

module Thistle
  # What is usual, against the plain means of the same days.
  class UsualTest < Minitest::Test
    def test_a_day_is_the_mean_of_a_fortnight_over_the_years
      %w[north south tropics].each do |name|
        site = Climates.site(name)
        [Date.new(2026, 1, 3), Date.new(2026, 7, 15)].each do |date|
          history = site.history
          days = site.measured(history.last...history.first.next_year)
          ring = (-7..7).map { |n| ((date.yday - 1 + n) % 365) + 1 }
          near = days.select { |day| ring.include?([day.date.yday, 365].min) }.filter_map(&:tmax)
          plain = near.sum / near.size

          assert_in_delta plain, site.usual(date).tmax, 0.05, "#{name} #{date}"
        end
      end
    end

    # The middle of the driest ninety days: none other of the year is drier by more than rounding.
    def test_the_dry_middle
      site = Climates.coast
      start = Core::Season::Year.start_of(site.today, site.latitude)
      rain = (0...365).map { |n| site.usual(start + n).rain }
      sums = (0...365).map { |n| (0...90).sum { |k| rain[(n + k) % 365] } }

      assert_in_delta sums.min, sums[(Core::Season::Usual.new(site).dry_middle - 45) % 365], 0.5
    end
  end
end
