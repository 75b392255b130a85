# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  class WebTest < RackTest
    PAGES = %w[/ /identify /survey /survey/zones /survey/layers /survey/searches /survey/totals /season /season/fit /season/weather /season/calendar /decide /decide/first /decide/plan /decide/courses /decide/schools /decide/rules /decide/methods /decide/methods/girdle /mix /work /recheck /replant /records /identify/plants/caltrop
               /identify/duel/caltrop/warty_caltrop /identify/reports /identify/practice /find?q=pear].freeze

    def test_every_page_answers_and_as_json
      PAGES.each do |path|
        get path

        assert_equal 200, last_response.status, path
        address, query = path.split("?")

        assert_kind_of Hash, json("#{address == "/" ? "/" : address}.json?#{query}").then { |data| data.is_a?(Array) ? {} : data }, path
      end
    end

    def test_headers_and_hosts
      policy = last_response.headers["content-security-policy"]

      assert_includes policy, "script-src 'self';"
      refute_includes policy, "unsafe"
      cookie = last_response.headers["set-cookie"].to_s

      assert_match(/httponly/i, cookie)
      assert_match(/samesite=strict/i, cookie)
      refute_match(/<script>|\son\w+=|\sstyle=/, last_response.body, "nothing inline")
      get "/", {}, "HTTP_HOST" => "elsewhere.test"

      assert_equal 403, last_response.status
    end

    def test_no_write_without_a_token
      post "/identify/observations", patch: patch("Q-11").id, c: { habit: "vine" }

      assert_equal 403, last_response.status
      assert_equal 1, patch("Q-11").observations.size
    end

    def test_what_is_typed_is_escaped
      patch("Q-01").update(note: "<script>alert(1)</script>")
      get "/survey/patches/#{patch("Q-01").id}"

      assert_includes last_response.body, "&lt;script&gt;alert(1)"
    end

    def test_the_first_page_is_light
      body = last_response.body
      assets = body.scan(%r{(?:href|src)="(/(?:css|js|vendor|img)/[^"#]+)}).flatten.uniq
      total = body.bytesize + assets.sum { |path| get(path).body.bytesize } + Dir["#{ROOT}/public/fonts/*"]
              .sum { |path| File.size(path) }

      assert_operator total, :<, 600_000
    end

    def test_decide_recomputes_from_the_address
      id = patch("Q-04").id
      kind = ->(query) do
        json("/decide.json?patch=#{id}&#{query}")["verdicts"].find { |v| v["method"] == "hand_pull" }["verdict"]
      end

      assert_equal %w[go wait no], ["soil=moist", "soil=dry", "size=wider"].map(&kind)
      answer = json("/decide.json?patch=#{id}&licensed=no")

      assert(answer["verdicts"].select { |v| %w[cut_stump basal_bark].include?(v["method"]) }.all? { |v| v["verdict"] == "no" })
      get "/decide?patch=#{id}&date=1492-10-12"

      assert_includes last_response.body, "within a year of today"
    end

    # Settling P-01's aquatic rules by the property's own answers: no licence, no label.
    def test_settings_reach_the_rules
      send_form :get, "/records?at=#{Store::Property.first(prefix: "P").id}"
      send_form :post, "/records/settings", name: "Mill Pond Park", units: "metric", stance: "any", texture: "loam",
                licensed: "true"
      found = json("/decide.json?patch=#{patch("P-05").id}&date=2026-10-05")["verdicts"].find { |v| v["method"] == "cut_stump" }

      assert_equal "go", found["verdict"]
      get "/survey"

      assert_includes last_response.body, " m²"
    end

    def test_mix_in_us_units_and_its_errors
      id = Store::Property.first(prefix: "P").id
      answer = json("/mix.json?at=#{id}&vessel=jar&active=glyphosate_ipa&stock=41&target=20&stems=100&dose=1")["answer"]

      assert_in_delta 110 * Core::Units::ML_PER_FL_OZ * 20 / 41, answer["stock_ml"], 0.1
      get "/mix?stock=41&target=60"

      assert_includes last_response.body, "stronger than the stock"
      assert_includes last_response.body, 'value="60"'
      get "/mix.json?stems=many"

      assert_equal 422, last_response.status
    end

    # The arithmetic is shown, and so is what forbids it: no licence, a stance, water in reach of a product not made for
    # it.
    def test_a_mix_says_what_the_rules_hold_against_it
      get "/mix?patch=#{patch("P-05").id}"

      ["Not on P-05 today", "No licensed applicator", "without herbicide"].each { |text| assert_includes last_response.body, text }
      wet = patch("Q-10").update(water_m: 3.0)
      wet.property.update(aquatic_label: true)
      get "/mix?patch=#{wet.id}&active=glyphosate_ipa"

      assert_includes last_response.body, "not labelled for aquatic use"
      get "/mix?patch=#{wet.id}&active=glyphosate_ipa_aquatic"

      refute_includes last_response.body, "this product is not labelled"
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

    def test_work_needs_its_herbicide_record
      id = patch("Q-04").id
      fields = { patch: id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2", hours: "1.5",
                 stems_done: "20" }
      send_form :post, "/work/treatments", **fields

      ["is needed: the licensed person", "how much stock was used"].each { |text| assert_includes last_response.body, text }
      send_form :post, "/work/treatments", **fields, active_key: "glyphosate_ipa", product: "30", mix: "20",
                applicator: "M. Oakes"

      assert_includes last_response.body, "more than the mix"
      send_form :post, "/work/treatments", **fields, done_on: "2024-01-01", active_key: "glyphosate_ipa", product: "30",
                applicator: "M. Oakes"

      assert_includes last_response.body, "before the patch was first seen"
      assert_empty patch("Q-04").treatments
      send_form :post, "/work/treatments", **fields, active_key: "glyphosate_ipa", product: "30", mix: "60",
                applicator: "M. Oakes"

      assert_equal [303, 30.0], [last_response.status, patch("Q-04").treatments.first.product_ml]
    end

    def test_a_check_with_more_alive_than_treated
      send_form :post, "/recheck/checks", patch: patch("Q-06").id, checked_on: "2026-05-12", resprouts: "65",
                missed: "0", seedlings: "0"

      assert_equal 422, last_response.status
      assert_includes last_response.body, "more than the 64 that were treated"
      assert_includes last_response.body, 'value="65"'
    end

    def test_files_come_in_or_say_why_not
      file = ->(text, name) do
        Rack::Test::UploadedFile.new(StringIO.new(text), "application/octet-stream", original_filename: name)
      end
      send_form :post, "/survey/arrivals",
                file: file['{"type":"Feature","geometry":{"type":"Point","coordinates":[38.0,-91.4]},"properties":{"name":"swapped"}}', "a.geojson"]
      follow_redirect!

      assert_includes last_response.body, "look swapped"
      send_form :post, "/survey/arrivals", file: file["<kml><Placemark>", "b.kml"]

      assert_equal 422, last_response.status
      assert_includes last_response.body, "cut off or damaged"
      post "/survey/arrivals", {}, "CONTENT_LENGTH" => "209715200" # 200 MB

      assert_equal 413, last_response.status
    end

    def test_today_stands_a_crowd_of_patches
      patch = patch("Q-04").values.except(:id)
      Sequel::Model.db[:patches].multi_insert(Array.new(150) { |n| patch.merge(code: "Q-#{n + 500}") })

      assert_equal 200, get("/").status
      assert_match(/10 of 1[67]\d/, last_response.body)
    end

    # By hand: 100 m² of plugs 30 cm apart in squares is 1 112 (rounded up); the window is the next one at the site.
    def test_a_planting_is_planned
      id = patch("Q-04").id
      send_form :post, "/replant/plantings", patch: id, native: "plantain_leaved_sedge", area: "100", grid: "square"
      planting = patch("Q-04").plantings.first

      assert_equal [1112, Testing.site.year.date(:last_frost)], [planting.plugs, planting.from_on]
      send_form :post, "/replant/plantings", patch: id, native: "lyre_leaf_sage", area: "100", purity: "90",
                germination: "80"

      assert_in_delta 100 * 600 / 550.0 / 0.72, patch("Q-04").plantings.last.seed_g, 1e-9
      send_form :post, "/replant/plantings", patch: id, native: "tanglehead", area: "100"

      assert_equal 422, last_response.status
      get "/replant?patch=#{id}&germination=0"

      assert_includes last_response.body, "above 0 and at most 100"
    end

    # US customary works throughout: no metric quantity is left on the pages of a property that is kept in it.
    def test_a_us_property_is_said_in_us_units
      id = patch("P-05").id
      ["/survey?at=#{patch("P-05").property_id}", "/survey/patches/#{id}", "/decide?patch=#{id}", "/mix?patch=#{id}", "/mix?patch=#{id}&vessel=tank", "/work?patch=#{id}&method=lever_pull", "/replant?patch=#{id}", "/season"].each do |path|
        get path
        text = Nokogiri::HTML(last_response.body).tap { |page|
          page.css("script, svg, .reasons, .brief > p, " \
                   "li .small, td.small").remove
        }.at("body").text

        refute_match(%r{\d[\d.\u202F]* (m²|ha|mL|km|km/h|mm|cm|°C|kg|g)\b(?!/mol)}, text, path)
      end
      get "/find", q: "P-05"

      assert_includes last_response.body, "Amur honeysuckle, P-05"
    end

    def test_no_trace_reaches_the_reader
      assert_equal 404, get("/survey/patches/999999").status
      assert_equal 422, get("/identify?c[nose]=long").status
      refute_match(%r{/core/|\.rb:\d+}, last_response.body)
    end

    def test_today_says_what_presses_over_all_properties
      board = json("/.json")
      groups = board["agenda"].to_h { |row| [row["patch"], row["group"]] }

      assert_equal "closing", groups["Q-07"]
      assert_equal "good", groups["Q-04"]
      assert_equal "stuck", groups["Q-23"], "nobody is covered against its sap"
      assert_equal "waiting", groups["Q-10"], "freed already; its stumps wait for full leaf"
      assert_equal %w[B P Q S], board["agenda"].map { |row| row["patch"][0] }.uniq.sort
      assert_operator board["due_count"], :>, 0
      assert_equal %w[278 ft²], Web::Today::Board.new(Store::Property.all, Testing::TODAY)
                                                 .amount(patch("P-03")), "in the units of its own property"
    end
  end
end
