# frozen_string_literal: true

require "support/spoiler"
require "test_helper"

module Thistle
  # Good files spoilt at random: whatever is broken, the answer is sound features or a complaint in words.
  class FuzzTest < Minitest::Test
    ROUNDS = 120

    def self.files
      @files ||= begin
        Testing.demo(fresh: true)
        property = Store::Property.first(prefix: "Q")
        kinds = %w[geojson kml kmz gpx csv zip].to_h { |kind| [kind, Web::Survey::Export.new(property, kind).bytes.b] }
        fixes = StandIns::GpsReceiver.new(seed: 1).walk(Testing.patch("Q-01").shape, start: Time.utc(2026, 5, 12))
        kinds.merge("nmea" => Formats::NMEA.write(fixes).b,
                    "grid" => Store::Layer.where(property_id: property.id).first.bytes.b)
      end
    end

    READERS = { "nmea" => ->(bytes) { Core::Survey::Track.new(Formats::NMEA.fixes(bytes)).shape },
                "grid" => ->(bytes) { Formats::EsriGrid.read(bytes).contours(50) },
                "gpx" => ->(bytes) { [Formats::Reader.read(bytes), Formats::GPX.fixes(bytes)] } }.freeze

    %w[geojson kml kmz gpx csv zip nmea grid].each do |kind|
      define_method("test_spoilt_#{kind}") do
        random, refused = Random.new(kind.sum), 0
        reader = READERS.fetch(kind) { ->(bytes) { Formats::Reader.read(bytes) } }
        ROUNDS.times do
          assert_sound reader.call(Spoiler.spoilt(self.class.files.fetch(kind), random))
        rescue Core::BadInput => e
          refute_empty e.message
          refused += 1
        end

        # a log only loses a sentence
        assert_operator refused, :>, 0, "nothing was refused: is it looked at?" unless kind == "nmea"
      end
    end

    # What was taken in spite of all can be written again: no number that is none, no text that is no text.
    def assert_sound(found)
      case found
      when Array then found.each { |one| assert_sound(one) }
      when Hash then found.each { |key, value| assert_sound([key, value]) }
      when Formats::Feature then assert_sound([found.geometry, found.name, found.properties.to_hash])
      when Core::Survey::Shape then assert_sound(found.geometry)
      when Float then assert_predicate found, :finite?
      when String then assert_predicate found.dup.force_encoding("UTF-8"), :valid_encoding?
      end
    end

    # What was read and is odd still goes through the dry run row by row.
    def test_spoilt_rows_are_judged_one_by_one
      Testing.demo(fresh: true)
      property = Store::Property.first(prefix: "Q")
      random = Random.new(11)
      values = [nil, true, -1, 1e308, "x", [], {}, [[]], [1], [[1, 2]], [[[1, 2], [3, 4]]], "NaN", [-91.4, 38],
                [[-91.4, 38], [-91.39, 38]], [[[-91.4, 38], [-91.39, 38], [-91.4, 38.01], [-91.4, 38]]]]
      features = Array.new(300) do
        geometry = { "type" => %w[Point LineString Polygon MultiPolygon MultiPoint Circle].sample(random:),
                     "coordinates" => values.sample(random:) }
        { type: "Feature", geometry: [geometry, geometry, nil, "none", []].sample(random:),
          properties: { code: values.sample(random:), cover: values.sample(random:), date: values.sample(random:) } }
      end
      arrival = Store::Arrival.draft(property, "odd.geojson",
                                     Formats::Reader.read(JSON.generate(type: "FeatureCollection", features:)))
      arrival.look(seen_on: Testing::TODAY)

      assert_equal 300, arrival.counts.values.sum
      assert_nil arrival.counts[nil]
      assert_operator arrival.counts["refuse"], :>, 200
      assert(arrival.arrival_rows_dataset.where(verdict: "refuse").all? { |row| row.reason.to_s != "" })
      arrival.take(seen_on: Testing::TODAY, at_once: true)

      assert_equal arrival.counts["add"], arrival.patches_dataset.count
    end
  end
end
