# frozen_string_literal: true

require "sqlite3"
require "test_helper"
require "timeout"

module Thistle
  # Files made to harm: each is refused in words, soon, and takes nothing with it. Built here, none is shipped.
  class HostileTest < Minitest::Test
    DRAWN = "\x11\x22\xFF\x00\x33".b.freeze
    BUSY = 600 # seconds past which nothing here may take, on any machine: what came in took for ever

    def refused(words, &)
      error = Timeout.timeout(BUSY) { assert_raises(Core::BadInput, &) }

      assert_match words, error.message
    end

    def test_what_takes_too_long_or_too_much_is_cut_off
      refused(/more than 10 seconds or 500 MB|Many files/) { Core::Apart.call(seconds: 1) { loop { nil } } }
      assert_raises(Core::Busy) { Core::Apart.call(seconds: 1) { sleep } } # as if the machine had no time for it
      refused(/more than 10 seconds or 500 MB/) do
        Core::Apart.call(megabytes: 60) { Array.new(40) { "x" * 8_000_000 } }
      end
      refused(/more than 10 seconds/) { Core::Apart.call { exit! } }
      refused(/in its own words/) { Core::Apart.call { raise Core::BadInput.new("in its own words", field: :file) } }

      assert_equal [1, "two"], Core::Apart.call { [1, "two"] }
    end

    # Two at a time; one more waits, and is told when it waits for long.
    def test_places
      places = Core::Places.new("test-#{Process.pid}", 1, full: "Many files are being read just now.")
      gate, held = Queue.new, Queue.new
      holder = Thread.new { places.hold(seconds: 1, field: :file) { held << gate.pop } }
      sleep 0.02 until Dir.glob("#{Dir.tmpdir}/test-#{Process.pid}-0.place").any?
      refused(/Many files are being read/) { places.hold(seconds: 0.2, field: :file) { flunk } }
      gate << :done
      holder.join

      assert_equal 3, places.hold(seconds: 5, field: :file) { 3 }
    ensure
      FileUtils.rm_f("#{Dir.tmpdir}/test-#{Process.pid}-0.place")
    end

    # 3 000 triangles over one another in one shape: said to cross, never taken apart.
    def test_many_parts_over_one_another
      parts = Array.new(3000) do |n|
        x, y = (n % 60) * 1e-4, (n / 60) * 1e-4
        [[[x, y], [x + 0.01, y], [x, y + 0.01], [x, y]].map { |lon, lat| [lon - 91.4, lat + 38.0] }]
      end
      error = assert_raises(Core::Survey::Shape::Crossed) do
        Core::Survey::Shape.new("type" => "MultiPolygon", "coordinates" => parts)
      end

      assert_nil error.repaired
    end

    def test_tiles_in_an_endless_view
      Dir.mktmpdir do |dir|
        path = "#{dir}/endless.mbtiles"
        db = SQLite3::Database.new(path)
        db.execute_batch(<<~SQL)
          CREATE TABLE metadata (name TEXT, value TEXT);
          CREATE VIEW tiles AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n)
            SELECT i AS zoom_level, i AS tile_column, i AS tile_row, x'00' AS tile_data FROM n;
        SQL
        db.close

        refused(/keeps its tiles in views/) { Formats::MBTiles.new(path) }
      end
    end

    def test_a_grid_of_nothing_but_slopes
      rows = Array.new(60) { |y| Array.new(60) { |x| (x + y).even? ? 0 : 190 }.join(" ") }
      head = ["ncols 60", "nrows 60", "xllcorner -91.4", "yllcorner 38", "cellsize 0.0001"]
      grid = Formats::EsriGrid.read([*head, *rows].join("\n"))

      refused(/take a wider step/) { grid.contours(1) }
    end

    def test_tables_that_are_too_wide
      refused(/20000 columns; 200 are the most/) do
        Formats::WeatherTable.read("#{(["date"] + Array.new(19_999) { |n| "t#{n}" }).join(",")}\n#{"1," * 19_999}1\n")
      end
      refused(/longer than 200 letters/) { Formats::WeatherTable.read("date,#{"(" * 40_000}\n2026-05-01,3\n") }
    end

    # 5 000 entries that all point at the same bytes.
    def test_a_photograph_that_points_at_itself
      refused(/notes beside the picture/) { Formats::Image.new("a.jpg", jpeg(tiff(entries: 4000, size: 16_000))) }
    end

    # Random segments in random order, fill bytes before them, a second picture and text behind the end: whatever stands
    # beside the picture, nothing of it is served.
    def test_no_position_in_what_is_served
      random, secret = Random.new(4), "38.0000N 91.4000W".b
      places = [0xE1, 0xE2, 0xED, 0xEF, 0xFE, 0xE0]
      200.times do
        beside = Array.new(random.rand(1..4)) do
          body = [tiff, secret, "http://ns.adobe.com/xap/1.0/\0#{secret}", random.bytes(40)].sample(random:)
          ["\xFF".b * random.rand(0..3), segment(places.sample(random:), body)].join
        end
        behind = ["", secret, jpeg(tiff), random.bytes(60)].sample(random:)
        served = Formats::Image.new("a.jpg", jpeg(*beside, raw: true) + behind).public_bytes

        refute_includes served, secret
        refute_includes served, "Exif".b
        refute_predicate EXIFR::JPEG.new(StringIO.new(served)), :exif?
        assert_equal [8, 8], EXIFR::JPEG.new(StringIO.new(served)).then { |one| [one.width, one.height] }
        assert served.end_with?(DRAWN.b + "\xFF\xD9".b)
      end
    end

    def test_document_types_in_any_encoding
      kml = %(<?xml version="1.0" encoding="UTF-16"?><!-- #{"x" * 70_000} --><!DOCTYPE kml [<!ENTITY f "boom">]>) \
            "<kml><Placemark><name>&f;</name></Placemark></kml>"

      refused(/declares a document type/) { Formats::Xml.parse(kml.encode("UTF-16").b, "KML") }
    end

    # What a spreadsheet would run leaves as text, and comes back as it was.
    def test_cells_that_would_run
      random = Random.new(2)
      cells = Array.new(300) { Array.new(random.rand(1..4)) { %w[= + - @ ' 1 a , .].sample(random:) }.join }
      cells += ["=1+1", "'=1", "''@x", "-3+2", "-3.5", "+7", "\t=x", "a=b", nil, 4.5]

      assert_equal cells, cells.map { |cell| Formats::Inert.read(Formats::Inert.write(cell)) }
      cells.grep(String).each do |cell|
        assert_match(/\A([^=+\-@\t\r]|[+-]?\d+([.,]\d+)?\z)/, Formats::Inert.write(cell), cell)
      end
    end

    def test_coordinate_systems_by_code_only
      refused(/give an EPSG code/) { Formats::EsriGrid.read("ncols 2", crs: "+proj=longlat +nadgrids=/etc/passwd") }
      refused(/is not a code/) do
        Formats::WorldFile.corners("1\n0\n0\n1\n0\n0", width: 2, height: 2, crs: "+init=/etc/x")
      end
    end

    private

    def segment(marker, body) = "\xFF".b + [marker].pack("C") + [body.bytesize + 2].pack("n") + body.b

    # An 8 × 8 picture with what stands beside it.
    def jpeg(*beside, raw: false)
      beside = beside.map { |body| segment(0xE1, body) } unless raw
      frame = [8, 8, 8, 1, 1, 0x11, 0].pack("CnnCCCC")
      scan = segment(0xDA, [1, 1, 0, 0, 63, 0].pack("C*"))
      ["\xFF\xD8".b, *beside, segment(0xC0, frame), scan, DRAWN, "\xFF\xD9".b].join
    end

    # EXIF with entries of text that lie at the same place.
    def tiff(entries: 2, size: 20)
      rows = Array.new(entries) { |n| [0x010E + n, 2, size, 26].pack("nnNN") }
      "Exif\0\0MM".b + [42, 8, entries].pack("nNn") + rows.join + [0].pack("N") + ("x" * size)
    end
  end
end
