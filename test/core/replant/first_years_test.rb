# frozen_string_literal: true

require "test_helper"
require "support/climates"

module Thistle
  # What a planting asks for in its first years, by hand from the days that the class names.
  class ReplantFirstYearsTest < Minitest::Test
    def cares(site, seed: false, comes_on: nil, planted_on: [])
      all = Core::Replant::FirstYears.new(site, seed:, comes_on:, planned_on: Date.new(2026, 3, 1), planted_on:,
                                                heights: ["10 cm", "30 cm"]).cares
      all.map { |care| [care.key[/\w+/], care.due_on, care.closes] }
    end

    def test_stock_is_looked_over_and_counted
      day = Date.new(2026, 4, 20)

      wanted = [["arrival", Date.new(2026, 4, 10), :planted], ["look", day + 14, nil], ["count", day + 365, :counted]]

      assert_equal wanted, cares(Testing.site, comes_on: Date.new(2026, 4, 10), planted_on: [day])
      assert_equal [["arrival", Date.new(2026, 3, 1), :planted]], cares(Testing.site, comes_on: Date.new(2026, 2, 1)),
                   "never before it was planned"
      assert_equal 4, cares(Testing.site, planted_on: [day, day + 30]).size, "in two goes"
    end

    # What is sown while it grows is mown that summer; what is sown in autumn, so many days after the next leaves.
    def test_a_sowing_is_mown_in_its_first_summer
      { "north" => [Date.new(2026, 5, 10), Date.new(2026, 11, 20)],
        "south" => [Date.new(2026, 11, 1), Date.new(2026, 5, 20)] }.each do |name, (growing, resting)|
        site = Climates.site(name)
        mown = ->(day) { cares(site, seed: true, planted_on: [day]).select { |key, _, _| key.start_with?("mow") } }
        leaf = [site.year(resting), site.year(resting >> 12)].filter_map { |year| year.moment(:leaf_out)&.date }
                                                             .find { |date| date >= resting }

        assert_equal [45, 75, 105], mown[growing].map { |_, due, _| (due - growing).to_i }, name
        assert_equal [45, 75, 105], mown[resting].map { |_, due, _| (due - leaf).to_i }, name
      end
    end
  end
end
