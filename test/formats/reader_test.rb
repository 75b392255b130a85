# frozen_string_literal: true

require "json"
require "open3"
require "test_helper"

module Thistle
  class ReaderTest < Minitest::Test
    RING = [[-91.4, 38.0], [-91.399, 38.0], [-91.399, 38.001], [-91.4, 38.001], [-91.4, 38.0]].freeze
    SOURCE = JSON.generate(type: "FeatureCollection", features: [
                             { type: "Feature", properties: { name: "Garlic mustard by the gate" },
                               geometry: { type: "Polygon", coordinates: [RING] } },
                             { type: "Feature", properties: { name: "Fence line" },
                               geometry: { type: "LineString", coordinates: RING.first(3) } },
                             { type: "Feature", properties: { name: "One tree" },
                               geometry: { type: "Point", coordinates: RING.first } }
                           ]).freeze

    def read(bytes) = Formats::Reader.read(bytes)

    # Files written by an independent program (GDAL's ogr2ogr), read back by ours.
    def written_by_ogr(format, suffix, source: SOURCE, options: [])
      Dir.mktmpdir do |dir|
        from, to = File.join(dir, "in.geojson"), File.join(dir, "out#{suffix}")
        File.write(from, source)
        _, err, status = Open3.capture3("ogr2ogr", "-f", format, to, from, *options)

        assert_predicate status, :success?, err
        File.binread(to)
      end
    end

    def test_random_bytes_are_refused_in_words
      random = Random.new(9)
      200.times do
        bytes = ["{", "<kml>", "<gpx>", ""].sample(random:) + random.bytes(random.rand(1..400))
        error = assert_raises(Core::BadInput) { Formats::Reader.read(bytes) }
        assert_equal :file, error.field
      end
    end

    def test_geojson_and_kml_from_ogr
      { "GeoJSON" => ".geojson", "KML" => ".kml" }.each do |format, suffix|
        features = read(written_by_ogr(format, suffix))

        assert_equal %w[Polygon LineString Point], features.map { |f| f.geometry["type"] }, format
        assert_equal ["Garlic mustard by the gate", "Fence line", "One tree"], features.map(&:name)
        assert_in_delta Core::Survey::Geodesic.area(RING), Core::Survey::Shape.new(features.first.geometry).area, 0.01
      end
    end

    def test_gpx_from_ogr
      only = ->(type) {
        data = JSON.parse(SOURCE)
        JSON.generate(data.merge("features" => data["features"].select { |one| one["geometry"]["type"] == type }))
      }
      points, lines = only["Point"], only["LineString"]

      assert_equal [["Point", "One tree"]],
                   read(written_by_ogr("GPX", ".gpx", source: points)).map { |f| [f.geometry["type"], f.name] }
      track = read(written_by_ogr("GPX", ".gpx", source: lines, options: ["-lco", "FORCE_GPX_TRACK=YES"]))

      assert_equal [["LineString", RING.first(3)]], track.map { |f| f.geometry.values_at("type", "coordinates") }
    end

    def test_a_walk_that_comes_back_is_an_area
      points = [*RING.first(4), [-91.4, 38.00005]].map { |lon, lat| %(<trkpt lat="#{lat}" lon="#{lon}"/>) }.join
      track = "<trk><name>Edge</name><trkseg>#{points}</trkseg></trk>"
      gpx = %(<?xml version="1.0"?><gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1">#{track}</gpx>)
      walk = read(gpx).first

      assert_equal %w[Polygon Edge], [walk.geometry["type"], walk.name]
    end

    def test_files_that_are_not_what_they_say
      kml = written_by_ogr("KML", ".kml")

      { "" => /empty/, "PK\x03\x04zip" => /cut off or damaged/, "\x00\x01\x02" => /not GeoJSON, KML/,
        SOURCE[0, SOURCE.size / 2] => /cut off/,
        kml[0, kml.size / 2] => /cut off or damaged near line/,
        '{"type":"FeatureCollection","features":[]}' => /no points/,
        '{"type":"FeatureCollection"}' => /no list/, "<kml></kml>" => /no points/,
        "{#{" " * (Formats::Reader::MAX_BYTES + 1)}}" => /larger than 48 MB/ }.each do |bytes, message|
        assert_match message, assert_raises(Core::BadInput) { read(bytes) }.message
      end
    end

    def test_entities_do_not_reach_out
      bomb = %(<?xml version="1.0"?><!DOCTYPE kml [<!ENTITY f SYSTEM "file:///etc/hostname">]><kml>) +
             "<Placemark><name>&f;</name><Point><coordinates>-91,38</coordinates></Point></Placemark></kml>"

      assert_includes ["", nil], read(bomb).first.name
    rescue Core::BadInput
      pass
    end
  end
end
