# frozen_string_literal: true

require "chunky_png"
require "json"
require "net/http"
require "sqlite3"
require "tmpdir"

module Thistle
  # A good file for each reader, and files made to take what there is: {kind => [address, field, bytes]}.
  class HostileFiles
    GRID = "ncols 20\nnrows 20\nxllcorner -91.4\nyllcorner 38\ncellsize 0.0005\n" \
           "#{Array.new(20) { |y| Array.new(20) { |x| 200 + x + (2 * y) }.join(" ") }.join("\n")}\n".freeze
    DAYS = "date,tmin,tmax,rain,wind\n#{(1..365).map { |n| "#{Date.new(2025, 1, 1) + n},5,15,1.5,9\n" }.join}".freeze
    ENTITIES = "<?xml version=\"1.0\"?><!DOCTYPE kml [#{Array.new(12) do |n|
      "<!ENTITY a#{n + 1} \"#{"&a#{n};" * 10}\">"
    end.join}<!ENTITY a0 \"x\">]><kml><Placemark><name>&a12;</name></Placemark></kml>".freeze
    ENDLESS = "CREATE VIEW tiles AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) " \
              "SELECT i AS zoom_level, i AS tile_column, i AS tile_row, x'00' AS tile_data FROM n"

    def initialize(client)
      @client, @random = client, Random.new(15)
    end

    # A good file for each reader.
    def good
      @good ||= begin
        exports = %w[geojson kml kmz gpx csv zip].to_h { |kind| [kind, @client.get("/survey/export/#{kind}")] }
        layers = { "grid" => GRID, "tiles" => tiles, "lines" => exports["geojson"], "picture" => picture }
        { **exports.transform_values { |bytes| ["/survey/arrivals", "file", bytes] },
          **layers.transform_values { |bytes| ["/survey/layers", "file", bytes] },
          "track" => ["/survey/walk", "file", fixes], "weather" => ["/season/weather/files", "file", DAYS],
          "png" => ["/survey/walk/photos", "photos[]", picture],
          "jpeg" => ["/survey/walk/photos", "photos[]", jpeg(3)] }
      end
    end

    # Files made to take what there is.
    def made
      @made ||= {
        "triangles" => ["/survey/arrivals", "file", triangles], "knot" => ["/survey/arrivals", "file", knot],
        "deep" => ["/survey/arrivals", "file", "#{"[" * 200_000}#{"]" * 200_000}"],
        "entities" => ["/survey/arrivals", "file", ENTITIES], "spaces" => ["/survey/arrivals", "file", " " * 900_000],
        "noise" => ["/survey/arrivals", "file", Random.new(1).bytes(1_000_000)],
        "wide" => ["/season/weather/files", "file", "#{"a," * 20_000}\n" * 3],
        "brackets" => ["/season/weather/files", "file", "date,#{"(" * 40_000}\n2026-05-01,3\n"],
        "endless" => ["/survey/layers", "file", tiles("VIEW")], "slopes" => ["/survey/layers", "file", slopes],
        "pointing" => ["/survey/walk/photos", "photos[]", jpeg(5000)]
      }
    end

    private

    def triangles
      parts = Array.new(3000) do |n|
        x, y = (n % 60) * 1e-4, (n / 60) * 1e-4
        [[[x, y], [x + 0.01, y], [x, y + 0.01], [x, y]].map { |lon, lat| [lon - 91.4, lat + 38.0] }]
      end
      JSON.generate(type: "MultiPolygon", coordinates: parts)
    end

    def knot
      ring = Array.new(60_000) { [-91.4 + @random.rand(0.01), 38.0 + @random.rand(0.01)] }
      JSON.generate(type: "Polygon", coordinates: [[*ring, ring.first]])
    end

    def slopes
      rows = Array.new(200) { |y| Array.new(200) { |x| (x + y).even? ? 0 : 190 }.join(" ") }
      ["ncols 200", "nrows 200", "xllcorner -91.4", "yllcorner 38", "cellsize 0.0001", *rows].join("\n")
    end

    def tiles(kind = "TABLE")
      Dir.mktmpdir do |dir|
        db = SQLite3::Database.new("#{dir}/t")
        db.execute_batch("CREATE TABLE metadata(name TEXT, value TEXT); INSERT INTO metadata VALUES('format','png')," \
                         "('name','t'),('bounds','-91.4,37.9,-91.3,38')")
        db.execute_batch(kind == "VIEW" ? ENDLESS : "CREATE TABLE tiles(zoom_level, tile_column, tile_row, tile_data)")
        db.execute("INSERT INTO tiles VALUES (1, 0, 0, ?)", [SQLite3::Blob.new(picture)]) unless kind == "VIEW"
        db.close
        File.binread("#{dir}/t")
      end
    end

    def picture = ChunkyPNG::Image.new(8, 8).to_blob

    def fixes
      ring = [[-91.4, 38.0], [-91.399, 38.0], [-91.399, 38.001], [-91.4, 38.0]]
      shape = Core::Survey::Shape.new("type" => "Polygon", "coordinates" => [ring])
      Formats::NMEA.write(StandIns::GpsReceiver.new(seed: 1).walk(shape, start: Time.utc(2026, 5, 12)))
    end

    # A small JPEG whose EXIF has so many entries, all at the same place.
    def jpeg(entries)
      rows = Array.new(entries) { |n| [0x010E + n, 2, 2000, 26].pack("nnNN") }
      app1 = "Exif\0\0MM".b + [42, 8, entries].pack("nNn") + rows.join + [0].pack("N")
      app1 += "x" * [2000, 65_000 - app1.bytesize].min.clamp(0, 2000)
      sof = "\xFF\xC0".b + [11, 8, 3, 4, 1, 1, 0x11, 0].pack("nCnnCCCC")
      "\xFF\xD8\xFF\xE1".b + [[app1.bytesize + 2, 65_535].min].pack("n") + app1 + sof +
        "\xFF\xDA".b + [8, 1, 1, 0, 0, 63, 0].pack("nCCCCCC") + "\x12\x34\xFF\xD9".b
    end
  end

  # A session that sends files.
  class Client
    def initialize(port)
      @http = Net::HTTP.start("127.0.0.1", port, read_timeout: 60)
      page = @http.get("/records")
      @cookie = page["set-cookie"][/thistle=[^;]+/]
      @token = page.body[/name="authenticity_token" value="([^"]+)"/, 1]
    end

    def get(path) = @http.get(path, "Cookie" => @cookie).body

    # The code of the answer.
    def post(path, field, name, bytes)
      request = Net::HTTP::Post.new(path, "Cookie" => @cookie)
      request.set_form([["authenticity_token", @token], [field, bytes, { filename: name }]], "multipart/form-data")
      @http.request(request).code.to_i
    end
  end
end
