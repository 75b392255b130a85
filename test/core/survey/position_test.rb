# frozen_string_literal: true

require "test_helper"

module Thistle
  # Places as people write them, against worked examples from elsewhere.
  class PositionTest < Minitest::Test
    Position = Core::Survey::Position

    # The water tower of the mapping guide (recalled: E 651409.903, N 313177.270 is 52 39 28.83 N, 1 42 57.87 E),
    # the CN Tower in UTM (recalled), the middle of Dublin by the Irish grid (recalled): within the grids' 5 m.
    PLACES = { "TG 51409 13177" => [1.716074, 52.658008], "17T 630084 4833438" => [-79.387139, 43.642567],
               "O 15904 34671" => [-6.26024, 53.34980], "NY 215 072" => [-3.2122, 54.4541] }.freeze

    def test_grids_and_utm
      PLACES.each do |text, place|
        found = Position.read(text)

        assert_operator Core::Survey::Geodesic.distance(found, place), :<, text.start_with?("NY") ? 80 : 6, text
      end
      assert_in_delta(-33.86, Position.utm("56H", 334_000, 6_251_000).last, 0.02)
      assert_nil Position.utm("61N", 500_000, 1), "no such zone"
      assert_nil Position.utm("15", 500_000, 4_000_000), "no band: north or south is not known"
    end

    # What is written reads back to the same ten metres, a metre where the grid is told in metres; beyond a grid nothing
    # is written.
    def test_places_are_written_by_the_grids_of_their_maps
      { "british" => [[-3.1, 54.5], [-0.1275, 51.5072], [-1.5, 60.3], [-5.7, 50.07]],
        "irish" => [[-6.26, 53.35], [-9.5, 52.06], [-7.3, 55.0]],
        "nztm" => [[174.7772, -41.2889], [168.35, -46.4], [173.0, -35.1]],
        "utm" => [[-91.4, 38.0], [151.2, -33.87], [-3.2, 55.95], [179.9, -17.0], [0.1, 0.1]] }.each do |grid, places|
        places.each do |place|
          text = Position.write(*place, grid)

          assert_operator Core::Survey::Geodesic.distance(Position.read(text), place), :<, 13, text
        end
      end
      assert_equal "NY 2885 1218", Position.write(-3.1, 54.5, "british")
      assert_nil Position.write(-91.4, 38.0, "british")
      assert_nil Position.write(2.0, 48.0, "irish")
      assert_nil Position.write(0.0, 89.0, "utm")
    end

    def test_degrees_minutes_seconds
      { "38° 0' 4.3\" N" => 38.0011944, "W 91 24.12" => -91.402, "-91.4021" => -91.4021, "91 24 07 W" => -91.4019444,
        "38,0012" => 38.0012, "S 0 30 0" => -0.5, "-0 30" => -0.5 }
        .each { |text, degrees| assert_in_delta degrees, Position.angle(text), 1e-6, text }
      ["91 61 00 W", "91 10 75", "nothing", "", "1 2 3 4", "-38 N", "38..2"].each do |text|
        assert_nil Position.angle(text), text
      end
    end

    def test_pairs
      { "38°00'04\"N 91°24'07\"W" => [-91.401944, 38.001111], "38.0012, -91.4021" => [-91.4021, 38.0012],
        "54.45 -3.21" => [-3.21, 54.45], "W91.4 N38" => [-91.4, 38.0], "91.4 W 38 N" => [-91.4, 38.0],
        "41 17 20 S, 174 46 38 E" => [174.777222, -41.288889] }.each do |text, place|
        found = Position.read(text)

        assert_in_delta place[0], found[0], 1e-5, text
        assert_in_delta place[1], found[1], 1e-5, text
      end
      ["hello", "", "12", "NY 123 45", "ZZ 99 99", "99Z 1 2"].each { |text| assert_nil Position.read(text), text }
    end
  end
end
