# frozen_string_literal: true

require "chunky_png"
require "nokogiri"
require "sqlite3"
require "support/web"
require_relative "../formats/image_test"

module Thistle
  # Patches, shapes, zones, layers, walks and files through their pages.
  class WebSurveyTest < RackTest
    def test_walks_come_in_from_a_phone_a_receiver_and_a_track
      corners = [[0, 0], [50, 0], [50, 50], [0, 50], [0, 3]]
      square = corners.each_cons(2).flat_map do |(a, b), (c, d)|
        (0...20).map { |k| [a + ((c - a) * k / 20.0), b + ((d - b) * k / 20.0)] }
      end
      fixes = square.each_with_index.map do |(x, y), n|
        { lon: -91.4 + (x / 87_832.0), lat: 38.0 + (y / 110_996.0), time: n * 2.0, accuracy_m: 4.0 }
      end
      send_form :post, "/survey/walk.json", fixes: JSON.generate(fixes + [{ lon: "x" }, 7])
      phone = JSON.parse(last_response.body)

      assert_equal [true, 80, []], phone.values_at("closed", "fixes_kept", "notes")
      assert_in_delta 2500, phone["area_m2"], 60
      assert_includes 20..250, phone["area_standard_error_m2"]

      nmea = Formats::NMEA.write(fixes.map { |fix| Core::Survey::Track::Fix.new(**fix) })
      points = fixes.map do |fix|
        time = Time.at(fix[:time]).utc.iso8601
        %(<trkpt lat="#{fix[:lat]}" lon="#{fix[:lon]}"><time>#{time}</time><hdop>0.8</hdop></trkpt>)
      end.join
      gpx = %(<gpx xmlns="http://www.topografix.com/GPX/1/1"><trk><trkseg>#{points}</trkseg></trk></gpx>)
      { "walk.nmea" => nmea, "walk.gpx" => gpx }.each do |name, text|
        send_form :post, "/survey/walk.json", file: upload(text, name)

        assert_in_delta phone["area_m2"], JSON.parse(last_response.body)["area_m2"], 2, name
      end
      odd = { { fixes: "{" } => "not a list of fixes", { fixes: "[]" } => "Only 0 usable",
              { file: upload("hello", "x.txt") } => "not a track", {} => "Walk, load a track",
              { practice: "99999" } => "no such patch" }
      odd.each do |sent, words|
        send_form :post, "/survey/walk", **sent

        assert_equal 422, last_response.status
        assert_includes last_response.body, words
      end
    end

    def test_photographs_become_points_that_want_a_name
      send_form :post, "/survey/walk/photos",
                photos: [upload(ImageTest.jpeg, "leaf.jpg"), upload(ImageTest.jpeg(exif: false), "blind.jpg")]
      found = Store::Patch.live[code: "Q-31"]

      assert_equal ["reported", "From leaf.jpg."], [found.state, found.note]
      assert_equal [-91.4021, 38.0012], found.shape.centre.map { |n| n.round(4) }
      assert_equal 1, found.reports.first.photos.size
      follow_redirect!

      assert_includes last_response.body, "blind.jpg had no position"
      send_form :post, "/survey/walk/photos", photos: [upload(ImageTest.jpeg(exif: false), "blind.jpg")]

      assert_includes last_response.body, "None of the photographs has a location"
    end

    # MBTiles 1.3: a SQLite file with metadata and tiles, rows counted from the south.
    def test_tiles_come_out_of_the_file
      Dir.mktmpdir do |dir|
        path = "#{dir}/a.mbtiles"
        db = SQLite3::Database.new(path)
        db.execute_batch(<<~SQL)
          CREATE TABLE metadata (name TEXT, value TEXT);
          CREATE TABLE tiles (zoom_level INTEGER, tile_column INTEGER, tile_row INTEGER, tile_data BLOB);
          INSERT INTO metadata VALUES ('name', 'Air'), ('format', 'png'), ('bounds', '-92,37,-91,39');
        SQL
        db.execute("INSERT INTO tiles VALUES (2, 1, 3, ?)", [SQLite3::Blob.new("picture")])
        db.close
        send_form :post, "/survey/layers", file: upload(File.binread(path), "a.mbtiles")
        layer = Store::Layer.last
        get "/survey/layers/#{layer.id}/2/1/0"

        assert_equal ["picture", "image/png"], [last_response.body, last_response.content_type]
        assert_equal 404, get("/survey/layers/#{layer.id}/2/1/3").status
        send_form :post, "/survey/layers", file: upload("#{Formats::MBTiles::SIGN}#{"x" * 500}", "b.mbtiles")

        assert_equal 422, last_response.status
        assert_includes last_response.body, "is not an MBTiles file"
      end
    end

    def test_pictures_need_a_place
      png = ChunkyPNG::Image.new(4, 3).to_blob
      { { file: upload(png, "a.png") } => "Add its world file",
        { file: upload(png, "a.png"), corners: "38, -91\n38, x\n37, -91" } => "type three corners",
        { file: upload(png, "a.png"), world: upload("1\n0\n0\n-1\n640000\n4206000", "a.pgw") } => "are not degrees",
        { file: upload("%PDF", "a.pdf") } => "That is not GeoJSON" }.each do |sent, words|
        send_form :post, "/survey/layers", **sent

        assert_equal 422, last_response.status, words
        assert_includes last_response.body, words
      end
      send_form :post, "/survey/layers", file: upload(png, "a.png"),
                corners: "38.01, -91.41\n38.01, -91.39\n38.0, -91.41"

      assert_equal [[-91.41, 38.01], [-91.39, 38.01], [-91.41, 38.0]], Store::Layer.last.details["corners"]
      get "/survey/layers/#{Store::Layer.last.id}/picture"

      assert_equal png, last_response.body
    end

    # Off by default; when set, the policy lets in that one host and no other.
    def test_outside_tiles_are_off_until_set
      refute_match(/img-src[^;]*http/, get("/survey").headers["content-security-policy"])
      send_form :post, "/survey/tiles", tile_url: "https://tiles.example.org/a/{z}/{x}/{y}.png"

      assert_match(%r{img-src 'self' https://tiles\.example\.org data:},
                   get("/survey").headers["content-security-policy"])
      assert_includes last_response.body, 'data-layer="outside"'
      send_form :post, "/survey/tiles", tile_url: ""

      refute_includes get("/survey").body, 'data-layer="outside"'
    end

    def test_what_was_typed_stays_with_its_complaint
      id = patch("Q-01").id
      send_form :post, "/survey/patches/#{id}/again", seen_on: "2026-05-12", infested: "999999", note: "by the wall"

      assert_equal 422, last_response.status
      assert_said "is more than the ground it stands on", "by the wall", 'value="999999"'
      send_form :post, "/survey/patches/#{id}/again", seen_on: "2026-05-12"

      assert_includes last_response.body, "Say what you saw"
      send_form :post, "/survey/patches/#{id}/merge", seen_on: "2026-05-12", other: patch("Q-02").id

      assert_includes last_response.body, "Q-02 is another plant"
      send_form :post, "/survey/patches/#{id}/split", seen_on: "2026-05-12",
                geometry: '{"type":"LineString","coordinates":[[-91,38],[-91.001,38]]}'

      assert_includes last_response.body, "does not cut the patch"
      send_form :post, "/survey/zones", kind: "castle", geometry: '{"type":"Point","coordinates":[-91.4,38]}',
                name: "Old Fort"

      ["The kind is needed", "Old Fort"].each { |text| assert_includes last_response.body, text }
      send_form :post, "/survey/patches/#{id}/merge", seen_on: "2026-05-12", other: patch("Q-10").id

      assert_equal [303, nil], [last_response.status, Store::Patch.live[code: "Q-10"]]
      rows = json("/records.json")["rows"]

      assert(rows.any? { |row| row["patch"] == "Q-01" && row["text"].start_with?("Free the tree") },
             "what was done on Q-10 is still on record")
    end

    # 48 MB is the most that is read, 96 MB the most that is let in at all; a nest of empty lists does not fill the
    # memory.
    def test_files_too_large_or_too_deep
      send_form :post, "/survey/arrivals", file: upload("{#{" " * (49 * 1024 * 1024)}}", "big.geojson")

      assert_includes last_response.body, "larger than 48 MB"
      send_form :post, "/survey/arrivals",
                file: upload(%({"type":"FeatureCollection","features":[#{(["[]"] * 200_000).join(",")}]}),
                             "lists.geojson")

      assert_includes last_response.body, "more than 150000 shapes"
    end

    def test_the_site_map_says_its_scale_truly
      get "/survey/site-map.svg"
      svg = Nokogiri::XML(last_response.body)
      scale = last_response.body[/1 : ([\d\u202F]+)/, 1].delete("\u202F").to_i
      bar, words = last_response.body[/M0-16v32M0 0h([\d.]+)m0/, 1].to_f, svg.xpath("//*[local-name()='text']")
                                                                             .map(&:text).grep(/\A\d+ m\z/).last

      assert_equal %w[297mm 210mm], %w[width height].map { |name| svg.root[name] }
      assert_in_delta words.to_i, bar * scale / 10_000, 0.5, "tenths of a millimetre on paper, times the scale"
      codes = svg.xpath("//*[local-name()='text']").map(&:text)

      Store::Property.first.live_patches.exclude(state: "closed").select_map(:code)
                     .each { |code| assert_includes codes, code }
    end

    def test_a_patch_is_drawn_measured_and_kept
      ring = [[-91.4, 38.0], [-91.3995, 38.0], [-91.3995, 38.0004], [-91.4, 38.0004], [-91.4, 38.0]]
      geometry = JSON.generate(type: "Polygon", coordinates: [ring])
      send_form :post, "/survey/measure", geometry:, cover_class: "3"

      assert_includes last_response.body, "gross area"
      send_form :post, "/survey/patches", geometry:, seen_on: "2026-05-12", plant_key: "garlic_mustard",
                cover_class: "3", sure: "yes"
      made = patch("Q-31")

      assert_equal ["standing", "garlic_mustard", 3], [made.state, made.plant_key, made.cover_class]
      assert_in_delta Core::Survey::Geodesic.area(ring), made.gross_m2, 1e-6
    end

    def test_a_bad_patch_keeps_what_was_typed
      bow = JSON.generate(type: "Polygon",
                          coordinates: [[[-91.4, 38.0], [-91.399, 38.001], [-91.399, 38.0], [-91.4, 38.001],
                                         [-91.4, 38.0]]])
      send_form :post, "/survey/patches", geometry: bow, seen_on: "2026-05-12", stems: "12", note: "by the old well"

      assert_equal 422, last_response.status
      ["crosses itself near", "Use the repaired shape", "by the old well", 'value="12"', "coordinates"].each do |kept|
        assert_includes last_response.body, kept
      end
      { { seen_on: "2031-01-01" } => "is in the future", { seen_on: "31 Febtember" } => "must be a date",
        { stems: "-3" } => "must be greater",
        { plant_key: "triffid" } => "not a plant in the library",
        { geometry: "" } => "Draw a point" }.each do |wrong, message|
        send_form :post, "/survey/patches", geometry: '{"type":"Point","coordinates":[-91.4,38.0]}',
                  seen_on: "2026-05-12", **wrong

        assert_equal 422, last_response.status, wrong.inspect
        assert_includes last_response.body, message
      end
      assert_equal 30, Store::Property.first(prefix: "Q").live_patches.count
    end

    def test_a_lost_update_is_told_and_shows_both
      mine = patch("Q-01")
      typed = { geometry: mine.geometry, seen_on: mine.seen_on.iso8601, plant_key: mine.plant_key, stems: "61",
                lock_version: mine.lock_version.to_s,
                note: "mine" }
      mine.update(stems: 50)
      send_form :put, "/survey/patches/#{mine.id}", **typed

      assert_equal 409, last_response.status
      ["Someone else changed", "<td>50</td>", "<td>61</td>"].each { |text| assert_includes last_response.body, text }
      assert_equal 50, patch("Q-01").stems
      send_form :put, "/survey/patches/#{mine.id}", **typed,
                lock_version: last_response.body[/name="lock_version" value="(\d+)"/, 1]

      assert_equal [303, 61], [last_response.status, patch("Q-01").stems]
    end

    def test_taking_a_patch_off_can_be_undone
      id = patch("Q-09").id
      send_form :delete, "/survey/patches/#{id}"

      assert_equal 404, get("/survey/patches/#{id}").status
      send_form :post, "/survey/changes/#{Store::Change.undoable.get(:id)}/undo"

      assert_equal 200, get("/survey/patches/#{id}").status
    end

    def test_files_come_in_or_say_why_not
      file = ->(text, name) do
        Rack::Test::UploadedFile.new(StringIO.new(text), "application/octet-stream", original_filename: name)
      end
      send_form :post, "/survey/arrivals",
                file: file['{"type":"Feature","geometry":{"type":"Point","coordinates":[38.0,-91.4]},' \
                           '"properties":{"name":"swapped"}}', "a.geojson"]
      follow_redirect!

      assert_includes last_response.body, "look swapped"
      send_form :post, "/survey/arrivals", file: file["<kml><Placemark>", "b.kml"]

      assert_equal 422, last_response.status
      assert_includes last_response.body, "cut off or damaged"
      post "/survey/arrivals", {}, "CONTENT_LENGTH" => "209715200" # 200 MB

      assert_equal 413, last_response.status
    end

    def test_an_import_is_taken_once_and_nothing_to_undo_says_so
      post "/survey/arrivals", authenticity_token: @token, file: upload("code,lat,lon\nZ-1,38.0012,-91.4\n", "one.csv")
      path = URI(last_response.headers["location"]).path
      answers = Array.new(2) { send_form(:post, "#{path}/take").status }

      assert_equal [303, 409], answers
      wait_for { Store::Arrival.order(:id).last.status == "taken" }
      assert_equal 1, Store::Patch.live.where(code: "Z-1").count
      2.times { send_form :post, "#{path}/undo" }

      assert_equal [422, 0], [last_response.status, Store::Patch.live.where(code: "Z-1").count]
      assert_includes last_response.body, "Nothing of one.csv is on the map"
    end
  end
end
