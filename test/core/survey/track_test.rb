# frozen_string_literal: true

require "test_helper"

module Thistle
  # Walks: what the fixes say, and how sure they are.
  class TrackTest < Minitest::Test
    Survey = Core::Survey
    Track = Core::Survey::Track
    Shape = Core::Survey::Shape
    HERE = [-91.4, 38.0].freeze

    def square(metres)
      corners = [[0, 0], [metres, 0], [metres, metres], [0, metres], [0, 0]]
      ring = corners.map { |x, y| [HERE[0] + (x / 87_832.0), HERE[1] + (y / 110_996.0)] }
      Shape.new("type" => "Polygon", "coordinates" => [ring])
    end

    def receiver(seed) = StandIns::GpsReceiver.new(seed:)

    # A receiver that drifts, goes blind and leaps: the walked area is within three of the told standard errors of the
    # true one, and the errors told are about the errors made.
    def test_walked_areas_are_as_good_as_they_say
      patch = square(80)
      misses = Array.new(40) do |seed|
        track = Track.new(receiver(seed).walk(patch, start: Time.utc(2026, 5, 12, 15)))

        assert_predicate track, :closed?
        assert_operator track.dropped, :>=, 3
        assert_operator track.fixes.map(&:accuracy_m).max, :<=, Track::WORST_M
        (track.area - patch.area) / track.area_error
      end

      assert_operator misses.map(&:abs).max, :<, 3
      assert_includes 0.4..1.4, Math.sqrt(misses.sum { |m| m * m } / misses.size), "spread of error over error told"
    end

    # With errors that know nothing of one another, the formula is the one of plane surveying: against 2 000 noisy
    # squares.
    def test_area_error_against_simulation
      random = Random.new(4)
      normal = -> { Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand) }
      plane = Survey::Plane.around(*HERE)
      corners = Array.new(24) { |n| [54 * Math.cos(n * Math::PI / 12), 54 * Math.sin(n * Math::PI / 12)] }
      areas = Array.new(2000) do
        noisy = corners.map { |x, y| [x + (2.0 * normal.call), y + (2.0 * normal.call)] }
        0.5 * noisy.each_index.sum { |n| (noisy[n - 1][0] * noisy[n][1]) - (noisy[n][0] * noisy[n - 1][1]) }
      end
      mean = areas.sum / areas.size
      simulated = Math.sqrt(areas.sum { |a| (a - mean)**2 } / areas.size)
      fixes = corners.each_with_index.map do |(x, y), n|
        lon, lat = plane.place(x, y)
        Track::Fix.new(lon:, lat:, time: n * 600.0, accuracy_m: 2.0 * Track::RADIUS_TO_SIGMA)
      end

      assert_in_delta simulated, Track.new(fixes).area_error(alike_s: 0), simulated * 0.1
    end

    def test_leaps_and_poor_fixes_are_named_even_when_the_first_is_the_leap
      fixes = receiver(1).walk(square(60), start: Time.utc(2026, 5, 12))
      far = fixes.first.with(lon: fixes.first.lon + 0.05)
      track = Track.new([far, *fixes.drop(1)])

      assert(track.notes.any? { |note| note.include?("jump faster than anyone walks") })
      assert(track.notes.any? { |note| note.include?("known no better than 20 m") })
      assert_in_delta square(60).area, track.area, 3 * track.area_error
      assert_match(/Only 1 usable/, assert_raises(Core::BadInput) { Track.new(fixes.first(1)) }.message)
      assert_match(/more than 20000/, assert_raises(Core::BadInput) { Track.new(fixes * 400) }.message)
    end

    def test_a_walk_that_does_not_come_back_is_a_line
      line = Shape.new("type" => "LineString", "coordinates" => [HERE, [HERE[0] + 0.002, HERE[1] + 0.001]])
      track = Track.new(receiver(2).walk(line, start: Time.utc(2026, 5, 12)))

      refute_predicate track, :closed?
      assert_equal ["line", nil], [track.shape.kind, track.area]
      assert_in_delta line.length, track.length, line.length * 0.12
    end

    # Searched ground is a swath; what was never seen is found again, and only places that draw are proposed.
    def test_the_next_walk_goes_where_nobody_looked
      boundary = square(600)
      trail = Shape.new("type" => "LineString",
                        "coordinates" => [[HERE[0], HERE[1] + 0.0027], [HERE[0] + 0.0068, HERE[1] + 0.0027]])
      line = { "type" => "LineString",
               "coordinates" => [trail.positions.first, [HERE[0] + 0.0034, HERE[1] + 0.0027]] }
      west = Survey::Searched.ground(Shape.new(line), sight_m: 120.0)
      draws = [Survey::Scouting::Draw.new(label: "trail", spreads: 1.0, shape: trail)]
      seen = [Survey::Scouting::Seen.new(on: Testing::TODAY - 10, ground: west)]
      route = Survey::Scouting.new(boundary:, draws:, seen:, start: trail.positions.last, today: Testing::TODAY)
                              .route(1500)

      assert_operator route.stops.size, :>=, 3
      assert_operator route.length_m, :<=, 1500
      route.stops.each do |stop|
        refute_predicate west.distance(Shape.new("type" => "Point", "coordinates" => stop.place)), :zero?
      end
      assert_equal "trail", route.stops.first.reasons.first.first
      places = [trail.positions.last, *route.stops.map(&:place), trail.positions.last]

      assert_in_delta places.each_cons(2)
                            .sum { |a, b| Survey::Geodesic.distance(a, b) }, route.length_m, route.length_m * 1e-3

      cover = Survey::Searched.cover(boundary, [west])

      assert_in_delta cover[:seen_m2] + cover[:unseen].area, boundary.area, 1
      assert_match(/how wide/, assert_raises(Core::BadInput) { Survey::Searched.ground(trail) }.message)
    end

    # Ground searched elsewhere covers none of it, and never less than none.
    def test_searched_beside_the_boundary
      random = Random.new(1)
      60.times do
        lon, lat = random.rand(-100.0..100.0), random.rand(-60.0..60.0)
        square = ->(x, size) { [[x, lat], [x + size, lat], [x + (size * 0.9), lat + size], [x, lat]] }
        boundary, far = [[lon, 0.008], [lon + 0.03, 0.001]].map do |x, size|
          Survey::Shape.new("type" => "Polygon", "coordinates" => [square.call(x, size)])
        end
        cover = Survey::Searched.cover(boundary, [far])

        assert_operator cover[:seen_m2], :>=, 0
        assert_operator cover[:share], :>=, 0
        assert_in_delta 0, cover[:seen_m2], 0.01
      end
    end

    def test_amounts_keep_measured_and_estimated_apart
      amount = Survey::Amount.new(gross_m2: 1000.0, cover_class: 3, density_m2: 2.0)

      assert_equal [[375.0, :estimated], [750, :estimated]], [amount.infested, amount.stem_count]
      told = amount.with(infested_m2: 90.0, cover_percent: 12.0,
                         stems: { "pencil" => 40, "wrist" => 40, "seedling" => 3 })

      assert_equal [[90.0, :measured], 12.0, [83, :counted], "wrist"],
                   [told.infested, told.cover, told.stem_count, told.stem_size]
      assert_nil Survey::Amount.new(gross_m2: 5.0).infested
    end

    # Doubled in two years is 41 % a year.
    def test_growth
      day = Date.new(2024, 5, 12)
      growth = Survey::Growth.new([Survey::Growth::Version.new(from: day + 731, gross_m2: 200.0),
                                   Survey::Growth::Version.new(from: day, to: day + 731, gross_m2: 100.0)])

      assert_in_delta Math.sqrt(2) - 1, growth.yearly(day + 731), 1e-3
      assert_equal [100.0, 200.0, 200.0], growth.steps(day + 900).map { |step| step[1] }
    end
  end
end
