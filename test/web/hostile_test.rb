# frozen_string_literal: true

require "support/web"
require "sqlite3"

module Thistle
  # What harms comes in through the pages: refused in words, nothing taken, and the next page answers.
  class WebHostileTest < RackTest
    def refused(path, words, **sent)
      before = Sequel::Model.db.tables.sum { |table| Sequel::Model.db[table].count }
      send_form(:post, path, **sent)

      assert_equal 422, last_response.status, path
      assert_said words
      assert_equal before, Sequel::Model.db.tables.sum { |table| Sequel::Model.db[table].count }, "nothing is taken"
      assert_equal 200, get("/find").status
    end

    def test_tiles_in_a_view
      Dir.mktmpdir do |dir|
        db = SQLite3::Database.new("#{dir}/a.mbtiles")
        db.execute_batch("CREATE TABLE metadata (name, value); CREATE VIEW tiles AS SELECT 1 AS zoom_level")
        db.close

        file = upload(File.binread("#{dir}/a.mbtiles"), "a.mbtiles")

        refused("/survey/layers", "keeps its tiles in views", file:)
      end
    end

    # A column that is worked out, a trigger, a virtual table; and a tile that no picture is as large as.
    def test_tiles_that_are_worked_out
      tiles = "CREATE TABLE metadata (name, value); CREATE TABLE tiles (zoom_level, tile_column, tile_row, tile_data"
      made = { "#{tiles} AS (zeroblob(400000000)))" => true, "#{tiles} AS (zeroblob(9)) STORED)" => true,
               "#{tiles}); CREATE TRIGGER t AFTER INSERT ON metadata BEGIN SELECT 1; END" => true,
               "CREATE TABLE metadata (name, value); CREATE VIRTUAL TABLE tiles USING fts5(tile_data)" => true,
               "#{tiles}); INSERT INTO tiles VALUES (1, 0, 0, zeroblob(5000000)), (1, 1, 0, x'89504E47')" => false }

      made.each do |sql, refused|
        Dir.mktmpdir do |dir|
          SQLite3::Database.new("#{dir}/a.mbtiles").tap { |db| db.execute_batch(sql) }.close
          next refused_by { Formats::MBTiles.new("#{dir}/a.mbtiles") } if refused

          file = Formats::MBTiles.new("#{dir}/a.mbtiles")

          assert_equal [nil, "\x89PNG".b], [file.tile(1, 0, 1), file.tile(1, 1, 1)]
        end
      end
    end

    def refused_by(&) = assert_raises(Core::BadInput, &)

    def test_a_weather_table_of_20_000_columns
      wide = "#{(["date"] + Array.new(19_999) { |n| "t#{n}" }).join(",")}\n#{"1," * 19_999}1\n"

      refused("/season/weather/files", "200 are the most", file: upload(wide, "wide.csv"))
    end

    def test_a_projection_that_opens_files
      refused("/survey/layers", "give an EPSG code", file: upload("ncols 2\nnrows 2\n", "a.asc"),
                                                     crs: "+proj=longlat +nadgrids=/etc/passwd")
    end

    # 60 000 corners that cross: looked at in a draft, refused row by row, and nothing of it reaches the map.
    def test_a_polygon_of_crossing_corners
      random = Random.new(1)
      ring = Array.new(8000) { [-91.4 + random.rand(0.01), 38.0 + random.rand(0.01)] }
      geometry = { type: "Polygon", coordinates: [[*ring, ring.first]] }
      send_form(:post, "/survey/arrivals", file: upload(JSON.generate(geometry), "knot.geojson"))
      rows = json("#{last_response.location[%r{/survey.*}]}.json")["rows"]

      assert_equal(["refuse"], rows.map { |row| row["verdict"] })
      assert_match(/crosses itself/, rows.first["reason"])
    end

    # A note that a spreadsheet would run leaves as text and comes back as a note.
    def test_a_note_that_begins_with_an_equals_sign
      patch("Q-01").update(note: "=HYPERLINK(1)")
      get "/survey/export/csv"

      assert_includes last_response.body, ",'=HYPERLINK(1),"
      found = Formats::Reader.read(last_response.body).find { |one| one.properties["code"] == "Q-01" }

      assert_equal "=HYPERLINK(1)", found.properties["note"]
    end

    # One answer sent as several, as a table, with control characters, too deep, past all numbers: said in words.
    def test_answers_of_another_kind
      id = patch("Q-05").id
      asked = { "/decide" => "patch", "/survey/list" => "q", "/find" => "q", "/mix" => "stems", "/replant" => "area",
                "/season/fit" => "work", "/records" => "before", "/identify" => "on" }
      odd = ["%{n}[]=", "%{n}[x]=a", "%{n}[][y]=1", "%{n}=%%01", "%{n}=%%00", "%{n}=%%FF", "c#{"[x]" * 6}=1",
             "c#{"[x]" * 60}=1", "%{n}=1e400", "%{n}=#{"9" * 400}", "%{n}=-1", "%{n}=%%F0%%9F%%8C%%B1"]
      asked.cycle.each_slice(3).first(odd.size).zip(odd) do |some, form|
        some.each do |path, name|
          get "#{path}?#{format(form, n: name)}"

          assert_operator last_response.status, :<, 500, "#{path} #{form}"
        end
      end
      send_form(:post, "/work/cleanings", property: patch("Q-05").property_id, people: { x: "a" })

      assert_equal 400, last_response.status
      assert_said "“people”: choose one answer only."
      send_form(:post, "/recheck/checks", patch: id, checked_on: "2026-05-12", resprouts: "0\u0007")

      assert_equal 400, last_response.status
    end

    # What is private is kept by no cache; behind TLS the session never leaves without it; a host that is not ours gets
    # no answer.
    def test_private_pages
      get "/records"

      assert_equal "private, no-store", last_response.headers["cache-control"]
      refute_match(/secure/i, last_response.headers["set-cookie"].to_s)
      get "/records?at=1", {}, "HTTP_X_FORWARDED_PROTO" => "https"

      assert_match(/; secure/i, last_response.headers["set-cookie"])
      assert_equal "max-age=31536000", last_response.headers["strict-transport-security"]
      get "/records", {}, "HTTP_HOST" => "elsewhere.example"

      assert_equal 403, last_response.status
    end

    def test_uploads_that_a_kill_left_are_swept
      was = ENV.fetch("TMPDIR", nil)
      Dir.mktmpdir do |data|
        FileUtils.mkdir_p("#{data}/incoming")
        %w[old new].each { |name| File.write("#{data}/incoming/RackMultipart-#{name}", "x") }
        File.utime(Time.now - 7200, Time.now - 7200, "#{data}/incoming/RackMultipart-old")
        Web::Incoming.into(data)

        assert_equal ["#{data}/incoming/RackMultipart-new"], Dir["#{data}/incoming/*"]
        assert_equal "#{data}/incoming", Dir.tmpdir
      end
    ensure
      ENV["TMPDIR"] = was
    end

    # Two at once; the rest wait in their order, and the page says so; one too many is refused.
    def test_long_work_waits_for_its_turn
      property = patch("Q-01").property
      gate = Queue.new
      jobs = Array.new(4) { Store::Job.start("settle", property).later { gate.pop } }
      wait_for { jobs.first(2).all? { |job| job.refresh.begun } }
      get "/records"

      assert_said "waits: 2 before it", "waits: 3 before it"
      assert_equal [false, false, true, true], json("/records.json")["jobs"].map { |job| job["waiting"] }
      4.times { gate << true }
      wait_for { jobs.all? { |job| job.refresh.status == "done" } }
      Array.new(Store::Job::WAITING) { Store::Job.start("plan", property) }

      error = assert_raises(Core::BadInput) { Store::Job.start("plan", property) }
      assert_match(/wait already/, error.message)
      Store::Job.start("settle", property, must: true)
    end

    # Another site may lead a person here, but has nothing worked out, drawn or written.
    def test_what_other_sites_ask_for
      outlook, page = "/recheck/patches/#{patch("Q-01").id}/outlook", "/survey/patches/#{patch("Q-01").id}"
      from = ->(path, mode, dest, site = "cross-site") {
        get path, {}, "HTTP_SEC_FETCH_SITE" => site, "HTTP_SEC_FETCH_MODE" => mode, "HTTP_SEC_FETCH_DEST" => dest
        last_response.status
      }

      assert_equal [200, 403, 403, 403],
                   [from[page, "navigate", "document"], from[page, "navigate", "iframe"],
                    from[page, "no-cors", "image"], from["#{page}.json", "navigate", "document"]]
      assert_equal [403, 200, 403],
                   [from[outlook, "navigate", "document"], from[outlook, "navigate", "document", "same-origin"],
                    from["/survey/export/gpkg", "navigate", "document"]]
      get "#{outlook}?futures=5", {}, "HTTP_SEC_FETCH_SITE" => "cross-site", "HTTP_SEC_FETCH_MODE" => "navigate",
                                      "HTTP_SEC_FETCH_DEST" => "document"

      assert_said %(href="#{outlook}?futures=5")
      header "Sec-Fetch-Site", "cross-site"

      assert_equal 403, send_form(:post, "/recheck/tasks", patch: patch("Q-01").id).status
    end

    # The host that a proxy stands before is nobody's over plain HTTP; this machine's own names are.
    def test_a_host_behind_a_proxy
      Web::App.set :over_tls, ["example.org"]
      codes = [{}, { "HTTP_X_FORWARDED_PROTO" => "https" }, { "HTTP_HOST" => "localhost" }].map do |env|
        get "/find", {}, env
        last_response.status
      end

      assert_equal [403, 200, 200], codes
    ensure
      Web::App.set :over_tls, []
    end

    def test_what_is_public_knows_no_session
      clear_cookies
      get "/css/thistle.css"

      assert_nil last_response.headers["set-cookie"]
      assert_equal %w[nosniff same-origin],
                   last_response.headers.values_at("x-content-type-options", "cross-origin-resource-policy")
      get "/img/glyphs.svg"

      assert_nil last_response.headers["set-cookie"]
      assert_match(/public/, last_response.headers["cache-control"])
      assert_equal "100600", format("%o", File.stat(Store::Database.path).mode)
    end
  end
end
