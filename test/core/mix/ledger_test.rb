# frozen_string_literal: true

require "test_helper"

module Thistle
  # What lies on each piece of ground, by hand and against sums over points.
  class LedgerTest < Minitest::Test
    Ledger = Core::Mix::Ledger

    # A box of so many metres east and north of a corner.
    def box(west, south, east, north)
      lon, lat = ->(x) { -91.4 + (x / 87_800.0) }, ->(y) { 38.0 + (y / 111_000.0) }
      ring = [[west, south], [east, south], [east, north], [west, north], [west, south]].map { |x, y| [lon[x], lat[y]] }
      Core::Survey::Shape.new("type" => "Polygon", "coordinates" => [ring])
    end

    def entry(ground, grams, **more) = Ledger::Entry.new(ground:, grams:, **more)

    # Three boxes of a hectare, each half over the next, a kilogram on each: 1, 2 and 1 kg on a hectare, never 3; on the
    # middle one it is 2 throughout; a fourth on the very same ground adds to all of it.
    def test_three_overlapping_treatments_by_hand
      boxes = [box(0, 0, 100, 100), box(50, 0, 150, 100), box(100, 0, 200, 100)]
      ledger = Ledger.new(boxes.map { |ground| entry(ground, 1000.0) })
      middle = ledger.pieces(boxes[1])

      middle.select { |piece| piece.ground.area > 5 }.each { |piece| assert_in_delta 2000, piece.g_per_ha, 15 }
      assert_in_delta boxes[1].area, middle.sum { |piece| piece.ground.area }, 1
      first = ledger.pieces(boxes[0]).select { |piece| piece.ground.area > 5 }

      assert_equal [2000, 1000], first.map { |piece| piece.g_per_ha.round(-2).to_i }
      more = Ledger.new([*boxes, boxes[1]].map { |ground| entry(ground, 1000.0) })

      assert_in_delta 3000, more.most(boxes[1]), 20
      assert_in_delta 0, Ledger.new([entry(box(500, 0, 600, 100), 9e9)]).most(boxes[0])
    end

    # A gram counts on what was treated, where that is less than the ground.
    def test_what_was_treated
      ground = box(0, 0, 100, 100)

      assert_in_delta 10_000, Ledger.new([entry(ground, 100.0, treated_m2: 100.0)]).most(ground)
      assert_in_delta 100, Ledger.new([entry(ground, 100.0, treated_m2: 1e9)]).most(ground), 1
    end

    # Random boxes: what a grid of points finds, and nothing more on pieces that the grid cannot miss.
    def test_against_points
      random = Random.new(5)
      8.times do
        boxes = Array.new(6) do
          x, y = random.rand(0..80.0), random.rand(0..80.0)
          [x, y, x + random.rand(20..60.0), y + random.rand(20..60.0)]
        end
        entries = boxes.map { |one| entry(box(*one), 500.0) }
        seen = (0.5..140).step(1.0).to_a.product((0.5..140).step(1.0).to_a).filter_map do |x, y|
          over = boxes.each_index.select do |n|
            west, south, east, north = boxes[n]
            x.between?(west, east) && y.between?(south, north)
          end
          over.sum { |n| entries[n].g_per_ha } if over.include?(0)
        end

        pieces = Ledger.new(entries).pieces(entries[0].ground)

        assert_operator pieces.first.g_per_ha, :>=, seen.max * 0.999
        assert_operator pieces.select { |piece| piece.ground.area > 60 }.map(&:g_per_ha).max, :<=, seen.max * 1.001
        assert_in_delta entries[0].area, pieces.sum { |piece| piece.ground.area }, 0.5
      end
    end
  end
end
