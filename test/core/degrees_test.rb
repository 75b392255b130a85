# frozen_string_literal: true

require "test_helper"

module Thistle
  # Flat ground against geodesics (PROJ), from pole to pole and over the 180° meridian.
  class DegreesTest < Minitest::Test
    Degrees = Core::Degrees
    Geodesic = Core::Survey::Geodesic
    PLACES = (-80..80).step(8).flat_map { |lat| [[-91.4, lat], [179.999, lat]] }.freeze

    def test_short_ways_are_those_of_geodesics
      PLACES.each do |lon, lat|
        [[0.002, 0], [0, 0.002], [0.0015, -0.001]].each do |east, north|
          other = [lon + east, lat + north]
          geodesic = Geodesic.distance([lon, lat], other)
          wrapped = other.first > 180 ? [other.first - 360, other.last] : other

          assert_in_epsilon geodesic, Degrees.apart([lon, lat], wrapped), 1e-4, "#{lon} #{lat} #{east} #{north}"
        end
      end
    end

    # A box holds all that is so near; south of the equator its southern edge is the narrow one.
    def test_a_box_holds_what_it_should
      PLACES.each do |lon, lat|
        box = [lon, lat - 0.5, lon + 0.1, lat + 0.5]
        west, south, east, north = Degrees.around(box, 150)
        [box[1], box[3]].each do |edge|
          assert_operator Geodesic.distance([box[0], edge], [west, edge]), :>=, 150
          assert_operator Geodesic.distance([box[2], edge], [east, edge]), :>=, 150
        end
        assert_operator Geodesic.distance([lon, box[1]], [lon, south]), :>=, 150
        assert_operator Geodesic.distance([lon, box[3]], [lon, north]), :>=, 150
      end
    end
  end
end
