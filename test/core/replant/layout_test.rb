# frozen_string_literal: true

require "test_helper"

module Thistle
  # Plants in a bed: in the shape, not in its holes, apart, as many as the density says; and who carries what.
  class ReplantLayoutTest < Minitest::Test
    Replant = Core::Replant

    def ring(*corners) = [*corners, corners.first]
    def square(size, at: 0.0) = ring([at, at], [at + size, at], [at + size, at + size], [at, at + size])

    def kind(key, share, spacing, height: 50, grassy: false)
      Replant::Layout::Kind.new(key:, share:, spacing:, height_cm: height, grassy:)
    end

    def kinds
      [kind("low", 0.25, 0.3, height: 20), kind("grass", 0.35, 0.45, height: 80, grassy: true),
       kind("tall", 0.2, 0.6, height: 160), kind("aster", 0.2, 0.45, height: 90)]
    end

    # Counted by hand: 3 m × 2 m holds 3 × 2 plants in squares of 1 m; in triangles rows 0.866 m apart, of 3 and, half a
    # space along, of 2, since nothing is planted on the edge.
    def test_a_small_bed_counted_by_hand
      bed = Replant::Bed.new([ring([0, 0], [3, 0], [3, 2], [0, 2])])

      assert_equal 6, bed.lattice(1.0, grid: "square").size
      assert_equal [[0.5, 0.433], [1.5, 0.433], [2.5, 0.433], [1.0, 1.299], [2.0, 1.299]],
                   bed.lattice(1.0).map { |place| place.map { |metres| metres.round(3) } }
      assert_in_delta 6.0, bed.area
    end

    # CHECKS.md: plants on a grid are 1/s² and 1/(0.8660 s²) on a unit of ground.
    def test_a_large_plain_bed_has_the_density_of_its_grid
      { "square" => 1.0, "triangular" => 0.8660 }.each do |grid, share|
        bed = Replant::Bed.new([square(40.0)])
        count = Replant::Layout.new(bed, [kind("a", 1, 0.5)], grid:).plants.size

        assert_in_delta 1600 / (share * 0.25), count, 0.03 * count
        many = Array.new(8) { |n| kind(n.to_s, 0.125, 0.5, height: 20 * n) }

        assert_in_delta count, Replant::Layout.new(bed, many, grid:, front: 90).plants.size, 0.03 * count
      end
    end

    # A bed with a hole and a tree: every plant in it, none in either, none too near another, the counts near the wish.
    def test_mixed_drifts_keep_in_the_bed_and_apart
      tree = Replant::Bed::Standing.new(x: 4.0, y: 20.0, r: 1.5)
      bed = Replant::Bed.new([square(26.0), square(6.0, at: 10.0).reverse], standing: [tree])
      layout = Replant::Layout.new(bed, kinds, front: 180)
      plants = layout.plants

      assert_in_delta (26**2) - 36, bed.area
      turned = Replant::Bed.new([square(26.0), square(6.0, at: 10.0)])

      assert_in_delta bed.area, turned.area, 1e-9, "however its hole is drawn"
      plants.each do |x, y, _|
        assert x.between?(0, 26) && y.between?(0, 26)
        refute x.between?(10.001, 15.999) && y.between?(10.001, 15.999)
        assert_operator Math.hypot(x - 4, y - 20), :>=, 1.5
      end
      assert_operator closest(plants, layout), :>=, 0.998
      layout.kinds.each_index do |n|
        assert_in_delta layout.wanted(n), plants.count { |plant| plant[2] == n }, 0.12 * layout.wanted(n)
      end
      assert_operator middle(plants, 0), :<, middle(plants, 2), "the low ones stand to the front"
      assert_equal plants, Replant::Layout.new(bed, kinds, front: 180).plants
      assert_equal plants.size, Replant::Clumps.of(plants, [0.5, 0.7, 0.9, 0.7]).sum { |drift| drift[3] }
    end

    # The nearest pair, as a share of what the two keep between them.
    def closest(plants, layout)
      spacing = layout.kinds.map(&:spacing)
      boxes = plants.group_by { |x, y, _| [x.floor, y.floor] }
      plants.flat_map do |x, y, n|
        around = [-1, 0, 1].product([-1, 0, 1]).flat_map { |dx, dy| boxes.fetch([x.floor + dx, y.floor + dy], []) }
        around.reject { |ox, oy, _| ox == x && oy == y }.map do |ox, oy, other|
          kept = n == other ? spacing[n] : Replant::Layout::TIGHT * (spacing[n] + spacing[other]) / 2
          Math.hypot(ox - x, oy - y) / kept
        end
      end.min
    end

    def middle(plants, kind)
      heights = plants.select { |plant| plant[2] == kind }.map { |plant| plant[1] }
      heights.sum / heights.size
    end

    def test_a_part_of_a_bed_nearest_to_the_front
      bed = Replant::Bed.new([square(20.0), square(4.0, at: 8.0).reverse])
      south = bed.nearest(100.0, 180)

      assert_in_delta 100.0, south.area, 0.01
      assert_in_delta 5.0, south.box[3], 0.01 # twenty metres wide, the hole lies behind
      assert_in_delta 10.0, bed.nearest(192.0, 90).box[0], 0.01
      assert_same bed, bed.nearest(1000.0, 0)
    end

    def test_beds_that_cannot_be
      bed = Replant::Bed.new([square(2.0)])
      wide = assert_raises(Core::BadInput) { Replant::Layout.new(bed, [kind("a", 1, 3.0)]) }
      none = assert_raises(Core::BadInput) { Replant::Bed.new([]) }

      assert_equal %i[spacing area], [wide.field, none.field]
      large = Replant::Bed.new([square(400.0)])
      many = assert_raises(Core::BadInput) { Replant::Layout.new(large, [kind("a", 1, 0.3)]) }

      assert_match(/too many/, many.message)
      assert_raises(Core::BadInput) { Replant::Carry.new([], ["plugs"], people: 0) }
    end

    # 104 plugs among four: 26 each, a tray of 50 each, two carried at a time: one walk.
    def test_who_carries_what
      bed = Replant::Bed.new([ring([0, 0], [13, 0], [13, 8], [0, 8])])
      plants = bed.lattice(1.0, grid: "square").map { |x, y| [x, y, 0] }
      strips = Replant::Carry.new(plants, ["plugs"], people: 4).strips

      assert_equal [26, 26, 26, 26], strips.map(&:count)
      assert_equal [1, 1], [strips.first.loads["plugs"][:held], strips.first.walks]
      assert(strips.each_cons(2).all? { |one, next_one| one.from >= next_one.from || one.to <= next_one.from })
    end
  end
end
