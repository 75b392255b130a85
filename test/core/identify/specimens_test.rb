# frozen_string_literal: true

require "test_helper"
require_relative "../../../bench/specimens"

module Thistle
  # What must hold for any specimen.
  class SpecimensTest < Minitest::Test
    Key = Core::Identify::Key

    # Volunteers answering only what is suggested, each look misread at its error rate, in a random month.
    # `rake bench` walks 50 of each plant and prints the table; here a few of each hold the same bars.
    def test_volunteers_reach_the_right_name_and_settle_no_wrong_one
      specimens = Specimens.new(site: Testing.site, random: Random.new(11))
      walks = Core::Knowledge.shipped.plants.values.map { |plant| specimens.walk(plant) }
      settled = walks.select(&:settled?)
      leads = walks.map { |walk| walk.lead || 99 }.sort

      assert_operator walks.count(&:right?), :>=, 0.9 * walks.size # of few, seedlings and dead stems too
      assert_operator leads[leads.size / 2], :<=, 7
      assert_operator settled.size, :>, 0.15 * walks.size # seedlings and dead stems are among them
      assert_operator settled.count { |walk| !walk.right? }, :<, 0.01 * walks.size
      assert((walks - settled).all? { |walk| walk.key.settlement.reasons.any? })
    end

    def test_a_plant_that_the_library_does_not_know_is_hardly_ever_settled
      walks = Core::Knowledge.shipped.plants.values.each_slice(6).map(&:first).flat_map do |plant|
        specimens = Specimens.new(site: Testing.site, random: Random.new(7),
                                  knowledge: Core::Knowledge.shipped.without(plant.key))
        Array.new(2) { specimens.walk(plant) }
      end

      most = 0.05 * walks.size # of few; under 3 % of many, says the bench
      settled = walks.select(&:settled?)

      assert_operator settled.size, :<=, most, settled.map { |one| "#{one.plant.key} as #{one.named.key}" }.join(", ")
    end
  end
end
