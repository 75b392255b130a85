# frozen_string_literal: true

require "json"
require "open3"
require "test_helper"

module Thistle
  class GeodesicTest < Minitest::Test
    Geodesic = Core::Survey::Geodesic
    # CHECKS.md, Geometry: WGS84 ellipsoid, geodesic edges, computed by GeographicLib.
    TABLE = {
      [[0, 0], [1, 0], [1, 1], [0, 1]] => [12_308_778_361.469, 443_770.917],
      [[0, 45], [1, 45], [1, 46], [0, 46]] => [8_686_379_301.740, 378_592.222],
      [[-91.35, 37.98], [-91.349, 37.98], [-91.349, 37.981], [-91.35, 37.981]] => [9_751.642, 397.704],
      # Antarctica outline of the GeographicLib planimeter example (Karney)
      [[-63.1, -58], [-72.9, -74], [-71.9, -102], [-74.9, -102], [-74.3, -131], [-77.5, -163], [-77.4, 163],
       [-71.7, 172],
       [-65.9, 140], [-65.7, 113], [-66.6, 88], [-66.9, 59], [-69.8, 25], [-70, -4], [-71, -14], [-77.3, -33],
       [-77.9, -46],
       [-74.7, -61]].map(&:reverse) => [13_662_703_680_020.1, 16_831_067.893]
    }.freeze

    def test_known_polygons
      TABLE.each do |ring, (area, perimeter)|
        assert_in_delta area, Geodesic.area(ring), [area * 1e-12, 0.001].max
        assert_in_delta perimeter, Geodesic.perimeter(ring), 0.001
      end
    end

    # Against GeographicLib's own package (npm geographiclib-geodesic 2.2.0), run here.
    def test_random_polygons_against_geographiclib
      random = Random.new(20_260_512)
      rings = Array.new(600) { random_ring(random) }
      answers = geographiclib(rings)

      assert_equal rings.size, answers.size
      rings.zip(answers) do |ring, answer|
        tolerance = answer["area"] < 100 ? 0.01 : answer["area"] * 1e-4

        assert_in_delta answer["area"], Geodesic.area(ring), tolerance, ring.inspect
        assert_in_delta answer["perimeter"], Geodesic.perimeter(ring), 0.001
      end
    end

    def test_distance_agrees_with_a_line_of_two_points
      line = [[-91.4, 38.0], [-91.39, 38.01]]

      assert_in_delta Geodesic.distance(*line), Geodesic.length(line), 1e-9
      assert_in_delta Geodesic.perimeter(line + [line.first]) / 2, Geodesic.length(line), 1e-6
    end

    private

    # A star-shaped ring of 1 m² to 100 km², anywhere to 80° of latitude, the 180° meridian included.
    def random_ring(random)
      latitude = random.rand(-80.0..80.0)
      longitude = random.rand(-180.0..180.0)
      reach = Math.sqrt(10**random.rand(0.0..8.0)) / 1.8
      corners = random.rand(3..24)
      Array.new(corners) do |n|
        turn = 2 * Math::PI * n / corners
        metres = reach * random.rand(0.6..1.0)
        lon = longitude + (metres * Math.cos(turn) / (111_320 * Math.cos(latitude * Math::PI / 180)))
        [((lon + 540) % 360) - 180, latitude + (metres * Math.sin(turn) / 111_132)]
      end
    end

    def geographiclib(rings)
      script = <<~JS
        const geodesic = require('geographiclib-geodesic').Geodesic.WGS84;
        const rings = JSON.parse(require('fs').readFileSync(0));
        console.log(JSON.stringify(rings.map((ring) => {
          const polygon = geodesic.Polygon(false);
          ring.forEach(([lon, lat]) => polygon.AddPoint(lat, lon));
          const answer = polygon.Compute(false, true);
          return { area: Math.abs(answer.area), perimeter: answer.perimeter };
        })));
      JS
      out, status = Open3.capture2("node", "-e", script, stdin_data: JSON.generate(rings), chdir: ROOT)

      assert_predicate status, :success?
      JSON.parse(out)
    end
  end
end
