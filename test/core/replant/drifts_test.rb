# frozen_string_literal: true

require "test_helper"

module Thistle
  # A bed in cells, and whose each is.
  class DriftsTest < Minitest::Test
    Replant = Core::Replant
    RING = [[0.0, 0.0], [20.0, 0.0], [20.0, 10.0], [0.0, 10.0], [0.0, 0.0]].freeze

    def cells = @cells ||= Replant::Cells.new(Replant::Bed.new([RING]), 0.5)

    def kind(key, share, height, grassy: false)
      Replant::Layout::Kind.new(key:, share:, spacing: 0.5, height_cm: height, grassy:)
    end

    def test_cells_know_their_places_and_neighbours
      assert_equal [800, 800], [cells.size, cells.inside.size]
      assert(cells.inside.all? { |cell| cells.at(cells.x(cell), cells.y(cell)) == cell })
      around = ->(cell) { [].tap { |all| cells.each_beside(cell) { |other| all << other } } }

      assert_equal [2, 3, 4], [0, 1, 41].map { |cell| around[cell].size }
      assert(cells.inside.all? { |cell| around[cell].all? { |other| around[other].include?(cell) } })
    end

    # Every cell is somebody's, shares are kept, low ones stand in front, and a drift holds together.
    def test_shares_heights_and_drifts
      kinds = [kind("low", 0.25, 20), kind("tall", 0.25, 150), kind("grass", 0.5, 60, grassy: true)]
      owners = Replant::Drifts.new(cells, kinds, front: 180, seed: 3).owners

      assert_equal cells.inside.size, owners.compact.size
      owners.compact.tally.each { |n, count| assert_in_delta kinds[n].share, count / 800.0, 0.02, kinds[n].key }
      depth = ->(n) { middle(cells.inside.select { |cell| owners[cell] == n }.map { |cell| cells.y(cell) }) }

      assert_operator depth[0], :<, depth[1] - 2, "seen from the south, the low ones stand to the south"
      alike = cells.inside.sum do |cell|
        same = 0
        cells.each_beside(cell) { |other| same += 1 if owners[other] == owners[cell] }
        same
      end

      assert_operator alike, :>, 4 * 800 * 0.55, "in drifts, not scattered"
      assert_equal owners, Replant::Drifts.new(cells, kinds, front: 180, seed: 3).owners
    end

    def middle(values) = values.sum / values.size
  end
end
