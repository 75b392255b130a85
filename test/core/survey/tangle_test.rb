# frozen_string_literal: true

require "test_helper"

module Thistle
  # What is laid over one another is bounded by what crosses, not by corners. Every shape in the table was measured:
  # what is light takes GEOS below half a second at once; the fan of 500 spikes took ten minutes and 15 GB.
  class TangleTest < Minitest::Test
    include Core::Survey

    def setup = @random = Random.new(11)
    def teardown = Overlay.limits = nil

    def shape(type, places)
      places = [places + places.first(1)] if type == "Polygon"
      Shape.new({ "type" => type, "coordinates" => places }, [])
    end

    def scattered(count) = Array.new(count) { [-91.4 + (@random.rand * 0.02), 38 + (@random.rand * 0.02)] }

    def fan(spikes)
      places = Array.new(2 * spikes) do |n|
        reach = n.even? ? 0.0 : 0.01
        [-91.4 + (reach * Math.cos(Math::PI * n / spikes)), 38 + (reach * Math.sin(Math::PI * n / spikes))]
      end
      shape("LineString", places)
    end

    # A comb of thin teeth, standing or lying.
    def comb(teeth, lying: false)
      places = (0...teeth).flat_map { |n| [[2 * n, 0], [2 * n, 2000], [(2 * n) + 1, 2000], [(2 * n) + 1, 0]] }
      places = [*places, [2 * teeth, -1], [0, -1]].map { |x, y| lying ? [y, x] : [x, y] }
      shape("Polygon", places.map { |x, y| [-91.4 + (x * 1e-5), 38 + (y * 1e-5)] })
    end

    # There and back in passes 5 m apart, a fix every 2 m.
    def passes(count, fixes)
      places = (0...count).flat_map do |row|
        (0...fixes).map { |n| [(row.even? ? n : fixes - 1 - n) * 2.0, row * 5.0] }
      end
      shape("LineString", places.map { |x, y| [-91.4 + (x / 87_000), 38 + (y / 111_000)] })
    end

    def test_what_is_light_and_what_is_heavy
      table = { [fan(5), 10] => false, [fan(40), 10] => true, [fan(500), 10] => true, [passes(20, 50), 1] => false,
                [shape("LineString", scattered(24)), 10] => false, [shape("LineString", scattered(300)), 10] => true,
                [comb(200), 0] => false, [comb(200), 10] => true }

      table.each { |(one, reach), heavy| assert_equal heavy, Tangle.heavy?([one], reach:), one.positions.size.to_s }
      assert Tangle.heavy?([comb(60), comb(60, lying: true)])
      refute Tangle.heavy?([comb(60), comb(60)].each_with_index.map { |one, n| n.zero? ? one : passes(2, 5) })
    end

    # Widened run by run, a line covers what it covers whole: by area within rounding of the circles' corners.
    def test_what_is_heavy_and_can_be_done_is_the_same
      Overlay.limits = { seconds: 60, patience: 60, altogether: 120 }
      line = passes(30, 60)
      whole = line.plane.feature(line).buffer(4).area

      assert Tangle.heavy?([line], reach: 4)
      assert_in_delta whole, Overlay.buffer(line, 4).area, whole * 0.002
      assert_in_delta 60 * 60 * ((1e-5 * 111_132)**2) * Math.cos(38 * Math::PI / 180),
                      Overlay.shared(comb(60), comb(60, lying: true)), 80
    end

    def test_what_is_too_much_is_said
      Overlay.limits = { seconds: 0.3, patience: 5, altogether: 5 }
      too_much = [-> { Overlay.buffer(fan(500), 10) }, -> { Overlay.buffer(shape("LineString", scattered(4000)), 10) },
                  -> { Overlay.intersection(comb(400), comb(400, lying: true)) },
                  -> { Overlay.split(comb(400), shape("LineString", scattered(2000))) }]

      too_much.each do |work|
        assert_match(/cross too often|Many shapes/, assert_raises(Overlay::Tangled, &work).message)
      end
      crossed = assert_raises(Shape::Crossed) { Shape.parse(shape("Polygon", scattered(4000)).geometry) }
      assert_nil crossed.repaired
      seen = Searched.cover(comb(2), [comb(400), comb(400, lying: true)])

      assert_equal [2, 0.0], seen.values_at(:left_out, :share)
    end
  end
end
