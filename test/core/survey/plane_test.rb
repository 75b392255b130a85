# frozen_string_literal: true

require "rgeo"
require "rgeo/proj4"
require "rgeo/geo_json"
require "test_helper"

module Thistle
  # The plane against other ways to the same numbers.
  class PlaneTest < Minitest::Test
    Survey = Core::Survey

    # The same projection through rgeo-proj4's own binding, one place at a time, and back again.
    def test_places_against_rgeo_proj4
      random = Random.new(12)
      globe = RGeo::Geos.factory(srid: 4326, coord_sys: "+proj=longlat +datum=WGS84 +no_defs +type=crs",
                                 coord_sys_class: RGeo::CoordSys::Proj4)
      [[-91.5, 38.0], [6.0, 60.25], [179.75, -17.0], [-70.0, -79.0]].each do |lon, lat|
        other = RGeo::Geos.factory(coord_sys: "+proj=laea +lat_0=#{lat} +lon_0=#{lon} +ellps=WGS84 +units=m +no_defs " \
                                              "+type=crs", coord_sys_class: RGeo::CoordSys::Proj4)
        plane = Survey::Plane.around(lon, lat)
        20.times do
          x, y = lon + random.rand(-0.1..0.1), lat + random.rand(-0.1..0.1)
          theirs = RGeo::Feature.cast(globe.point(x, y), factory: other, project: true)
          ours = plane.point(x, y)

          assert_in_delta theirs.x, ours[0], 1e-6
          assert_in_delta theirs.y, ours[1], 1e-6
          plane.place(*ours).zip([x, y]) { |back, was| assert_in_delta was, back, 2e-8 } # 2 mm
        end
      end
    end

    # Well-known binary against RGeo's own writer, for every kind of geometry.
    def test_binary_against_rgeo
      ring = [[0.0, 0.0], [2.0, 0.0], [2.0, 2.5], [0.0, 0.0]]
      { "Point" => [1.5, -2.25], "MultiPoint" => [[1.0, 2.0], [3.0, 4.0]], "LineString" => ring,
        "MultiLineString" => [ring, ring.reverse], "Polygon" => [ring],
        "MultiPolygon" => [[ring], [ring.map { |x, y| [x + 9, y] }]] }.each do |type, coordinates|
        theirs = RGeo::GeoJSON.decode({ "type" => type, "coordinates" => coordinates },
                                      geo_factory: Survey::Meridian::FLAT)

        assert_equal RGeo::WKRep::WKBGenerator.new(little_endian: true)
                                              .generate(theirs), Survey::Wkb.write(type, coordinates), type
      end
    end

    # However a view and a shape lie about the 180° meridian, the boxes find each other exactly when the two meet on the
    # globe.
    def test_views_about_the_meridian
      random = Random.new(7)
      meets = ->(a, b) { a[0] <= b[2] && a[2] >= b[0] && a[1] <= b[3] && a[3] >= b[1] }
      300.times do
        west = 179.9 + random.rand(-0.2..0.2)
        shape = [west, 0.0, west + 0.05, 0.1] # runs on past 180
        from = 179.9 + random.rand(-0.3..0.3)
        from -= 360 if from > 180
        view = [from, 0.0, from + 0.1, 0.1]
        # The truth: both turned into 0..360.
        turned = [view, shape].map { |w, s, e, n| w.negative? ? [w + 360, s, e + 360, n] : [w, s, e, n] }

        assert_equal meets.call(*turned), Survey::Meridian.boxes(view)
                                                          .any? { |box| meets.call(box, shape) }, [view, shape].inspect
      end
    end

    # A walker on a straight line at a steady pace is where the line says, whatever single fix is off; a certain fix is
    # believed.
    def test_the_smoother_knows_steady_motion
      times = (0..40).map { |n| n * 2.0 }
      truth = times.map { |t| 3 + (1.3 * t) }
      exact = Survey::Smoother.new(times, truth, [2.0] * 41, 0.35).values

      exact.zip(truth) { |a, b| assert_in_delta b, a, 0.5 }
      noisy = truth.each_with_index.map { |x, n| n == 20 ? x + 9 : x }
      smoothed = Survey::Smoother.new(times, noisy, [2.0] * 41, 0.05).values

      assert_operator (smoothed[20] - truth[20]).abs, :<, 2.0
      sure = Survey::Smoother.new(times, noisy, Array.new(41) { |n| n == 20 ? 0.01 : 4.0 }, 0.35).values

      assert_in_delta noisy[20], sure[20], 0.1
    end

    # As much land to the west as to the east, no more: nearest in metres, not in degrees.
    def test_a_nest_finds_what_is_near_in_metres
      shapes = Array.new(200) do |n|
        Survey::Shape.new("type" => "Point", "coordinates" => [20 + (0.0001 * (n % 20)), 69.9 + (0.0001 * (n / 20))])
      end
      [3.0, 8.0, 25.0].each do |metres|
        nest = Survey::Nest.new(metres) { |other, shape| other.distance(shape) <= metres }
        shapes.each_with_index do |shape, n|
          plain = shapes.first(n).find do |other|
            Survey::Geodesic.distance(other.positions.first, shape.positions.first) <= metres
          end

          assert_equal plain.nil?, nest.near(shape).nil?, "#{metres} m, #{n}"
          nest.add(shape.bounds, shape)
        end
      end
    end
  end
end
