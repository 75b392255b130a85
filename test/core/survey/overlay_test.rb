# frozen_string_literal: true

require "test_helper"

module Thistle
  # Shapes over one another, on the ellipsoid, anywhere on the globe.
  class OverlayTest < Minitest::Test
    Shape = Core::Survey::Shape
    Overlay = Core::Survey::Overlay
    Geodesic = Core::Survey::Geodesic

    # Places that trip grids: a UTM zone's edge (6° W), the equator, the 180° meridian, far north and south.
    PLACES = [[-91.4, 38.0], [-6.0, 57.0], [0.0, 0.0], [179.999, -17.0], [-179.9995, 52.0], [24.0, 79.5],
              [150.0, -79.0]].freeze

    def star(random, lon, lat, reach)
      corners = random.rand(4..18)
      ring = Array.new(corners) do |n|
        turn, metres = 2 * Math::PI * n / corners, reach * random.rand(0.5..1.0)
        x = lon + (metres * Math.cos(turn) / (111_320 * Math.cos(lat * Math::PI / 180)))
        [((x + 540) % 360) - 180, lat + (metres * Math.sin(turn) / 111_132)]
      end
      Shape.new("type" => "Polygon", "coordinates" => [[*ring, ring.first]])
    end

    # Inclusion and exclusion: A + B = A∪B + A∩B, A = A−B + A∩B, each area taken on the ellipsoid, to 0.1 %.
    def test_overlay_areas_add_up_anywhere_from_a_garden_to_fifty_kilometres
      random = Random.new(8)
      PLACES.product([20, 900, 24_000]).each do |(lon, lat), reach|
        a = star(random, lon, lat, reach)
        b = star(random, lon + (reach * 0.7 / (111_320 * Math.cos(lat * Math::PI / 180))),
                 lat + (reach * 0.2 / 111_132), reach)
        union, both, left = Overlay.union([a, b]).area, Overlay.shared(a, b), Overlay.difference(a, b).area

        assert_in_delta a.area + b.area, union + both, union * 1e-3, [lon, lat, reach].inspect
        assert_in_delta a.area, left + both, union * 1e-3
        assert_operator both, :<=, [a.area, b.area].min * 1.001
      end
    end

    # Buffers are true metres: the disc of a point has πr², and its edge lies r away by geodesic, wherever it is.
    def test_buffers_are_metres_on_the_ground
      PLACES.each do |place|
        point = Shape.new("type" => "Point", "coordinates" => place)
        disc = Overlay.buffer(point, 30.0)

        assert_in_delta Math::PI * 900, disc.area, Math::PI * 900 * 1e-3
        disc.positions.each { |corner| assert_in_delta 30.0, Geodesic.distance(place, corner), 0.03 }
      end
    end

    def test_nearest_distance_agrees_with_the_geodesic
      random = Random.new(3)
      PLACES.each do |lon, lat|
        x = lon + (random.rand(-0.2..0.2) / Math.cos(lat * Math::PI / 180))
        other = [((x + 540) % 360) - 180, lat + random.rand(-0.2..0.2)]
        there = Geodesic.distance([lon, lat], other)

        assert_in_delta there, Shape.new("type" => "Point", "coordinates" => [lon, lat])
                                    .distance(Shape.new("type" => "Point", "coordinates" => other)), there * 1e-3
      end
    end

    # RFC 7946 section 3.1.9: a shape over the 180° meridian is cut in two; 3.1.6: outlines turn counter-clockwise.
    def test_a_shape_over_the_meridian_is_whole_inside_and_cut_outside
      ring = [[179.999, -17.0], [179.999, -17.002], [-179.999, -17.002], [-179.999, -17.0], [179.999, -17.0]]
      shape = Shape.new("type" => "Polygon", "coordinates" => [ring])
      here = Shape.new("type" => "Polygon", "coordinates" => [ring.map { |lon, lat| [((lon + 360) % 360) - 80, lat] }])

      assert_in_delta here.area, shape.area, 1e-3
      assert_operator shape.bounds[2] - shape.bounds[0], :<, 0.01
      out = shape.published

      assert_equal "MultiPolygon", out["type"]
      assert(out["coordinates"].flatten(2).all? { |lon, _| lon.between?(-180, 180) })
      assert_in_delta shape.area, Shape.new(out).area, 1e-3
      out["coordinates"].flatten(1).each do |part|
        assert_predicate part.each_cons(2).sum { |(x, y), (u, v)| (x - u) * (v + y) }, :positive?, "counter-clockwise"
      end
    end

    def test_a_line_splits_a_patch_with_a_hole_and_parts
      outer = [[0, 0], [0.004, 0], [0.004, 0.002], [0, 0.002], [0, 0]].map { |x, y| [x - 91.4, y + 38] }
      corners = [[0.001, 0.0005], [0.001, 0.0015], [0.0015, 0.0015], [0.0015, 0.0005], [0.001, 0.0005]]
      hole = corners.map { |x, y| [x - 91.4, y + 38] }
      shape = Shape.new("type" => "MultiPolygon",
                        "coordinates" => [[outer, hole], [outer.map { |x, y| [x, y + 0.01] }]])
      line = Shape.new("type" => "LineString", "coordinates" => [[-91.398, 37.999], [-91.398, 38.003]])
      parts = Overlay.split(shape, line)

      assert_equal 3, parts.size
      assert_in_delta shape.area, parts.sum(&:area), shape.area * 1e-6
      miss = Shape.new("type" => "LineString", "coordinates" => [[-91.38, 37.99], [-91.38, 38.03]])

      assert_match(/does not cut/, assert_raises(Core::BadInput) { Overlay.split(shape, miss) }.message)
    end

    # Drawn lighter, stored whole.
    def test_simplifying_for_display_leaves_the_shape_alone
      ring = Array.new(400) do |n|
        [-91.4 + (0.001 * Math.cos(n * Math::PI / 200)), 38 + (0.001 * Math.sin(n * Math::PI / 200))]
      end
      shape = Shape.new("type" => "Polygon", "coordinates" => [[*ring, ring.first]])
      before = Marshal.load(Marshal.dump(shape.geometry))
      drawn = Overlay.drawn(shape, 0.5)

      assert_operator drawn.positions.size, :<, 80
      assert_equal before, shape.geometry
      assert_in_delta shape.area, drawn.area, shape.area * 0.02
    end

    def test_what_cannot_be_a_place_is_told_apart
      odd = { [500_000.0, 4_200_000.0] => /not degrees/, [38.0, -91.4] => /look swapped/,
              [200.0, 95.0] => /not on the globe\.\z/ }
      odd.each do |place, message|
        error = assert_raises(Core::BadInput) { Shape.new("type" => "Point", "coordinates" => place) }

        assert_match message, error.message
      end
      line = { "type" => "LineString", "coordinates" => [[1, 1], [1, 1]] }

      assert_match(/no length/, assert_raises(Core::BadInput) { Shape.new(line) }.message)
    end
  end
end
