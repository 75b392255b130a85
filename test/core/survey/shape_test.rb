# frozen_string_literal: true

require "test_helper"

module Thistle
  class ShapeTest < Minitest::Test
    Shape = Core::Survey::Shape
    Cover = Core::Survey::Cover
    SQUARE = [[-91.35, 37.98], [-91.349, 37.98], [-91.349, 37.981], [-91.35, 37.981], [-91.35, 37.98]].freeze

    def test_holes_are_taken_out
      hole = SQUARE.map { |lon, lat| [-91.3495 + ((lon + 91.3495) / 2), 37.9805 + ((lat - 37.9805) / 2)] }
      whole = Shape.new("type" => "Polygon", "coordinates" => [SQUARE])
      holed = Shape.new("type" => "Polygon", "coordinates" => [SQUARE, hole])

      assert_in_delta whole.area * 0.75, holed.area, 0.01
    end

    def test_lines_and_points_by_width_and_radius
      line = Shape.new("type" => "LineString", "coordinates" => SQUARE.first(2))
      point = Shape.new("type" => "Point", "coordinates" => SQUARE.first)

      assert_in_delta line.length * 3, line.gross_area(width: 3), 1e-9
      assert_in_delta Math::PI * 4, point.gross_area(radius: 2), 1e-9
      assert_nil line.gross_area
    end

    def test_distance_on_the_plane_is_the_geodesic
      a = Shape.new("type" => "Polygon", "coordinates" => [SQUARE])
      b = Shape.new("type" => "Point", "coordinates" => [-91.34, 37.98])

      assert_in_delta Core::Survey::Geodesic.distance([-91.349, 37.98], [-91.34, 37.98]), a.distance(b), 0.01
      assert_in_delta 0.0, a.distance(Shape.new("type" => "Point", "coordinates" => [-91.3495, 37.9805]))
    end

    def test_a_crossed_outline_says_where_and_offers_a_repair
      bow = [SQUARE[0], SQUARE[2], SQUARE[1], SQUARE[3], SQUARE[0]]
      error = assert_raises(Shape::Crossed) { Shape.new("type" => "Polygon", "coordinates" => [bow]) }

      assert_match(/crosses itself near 37\.9805° N, 91\.3495° W/, error.message)
      repaired = Shape.new(error.repaired)

      assert_in_delta Core::Survey::Geodesic.area(SQUARE) / 2, repaired.area, 1
    end

    def test_bad_shapes_are_named
      { '{"type":"Point","coordinates":[37.98,-91.3]}' => /look swapped/,
        '{"type":"Polygon","coordinates":[]}' => /empty/,
        '{"type":"Point","coordinates":["x",1]}' => /not numbers/, '{"type":"Circle"}' => /not a point/,
        "oops" => /not a GeoJSON/,
        '{"type":"LineString","coordinates":[[0,0],[20,20]]}' => /spans more/, "" => /Draw/,
        '{"type":"Polygon","coordinates":[[[1,1],[1,1],[1,1],[1,1]]]}' => /three different/ }.each do |text, message|
        assert_match message, assert_raises(Core::BadInput) { Shape.parse(text) }.message
      end
    end

    # CHECKS.md, Cover classes: Daubenmire (1959), recalled.
    def test_daubenmire
      assert_equal [2.5, 15, 37.5, 62.5, 85, 97.5], Cover::CLASSES.map(&:middle)
      assert_equal [1, 1, 2, 4, 6], [0, 5, 5.1, 75, 100].map { |percent| Cover.of(percent).key }
      assert_in_delta 375.0, Cover.infested(1000, 3)
      assert_nil Cover.infested(1000, nil)
      assert_raises(Core::BadInput) { Cover.of(101) }
    end
  end
end
