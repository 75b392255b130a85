# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  # What every page owes: it answers, as JSON too, is light, keeps out what is not ours, and says faults in words.
  class WebAppTest < RackTest
    PAGES = %w[/ /identify /survey /survey/zones /survey/layers /survey/searches /survey/totals /survey/here
               /season /season/fit /season/weather /season/calendar /decide /decide/first /decide/plan /decide/courses
               /decide/schools /decide/rules /decide/methods /decide/methods/girdle /mix /work /recheck /replant
               /records /identify/plants/caltrop /identify/duel/caltrop/warty_caltrop /identify/reports
               /identify/practice /find?q=pear].freeze
    ASKED = %w[/ /.json /identify /survey /survey.json /survey/list /survey/files /survey/zones /survey/searches
               /survey/totals /season /season/fit /season/calendar /season/calendar.ics /decide /decide/first
               /decide/plan /decide/courses /decide/rules /mix /work /work.json /recheck /recheck.json /replant
               /records /records.json /identify/reports /find?q=pear /survey/export/geojson].freeze

    def db = Sequel::Model.db
    def today = Testing::TODAY

    # Every statement that was sent while the block ran.
    def statements
      said = []
      logger = Logger.new(StringIO.new)
      logger.formatter = ->(_, _, _, message) { said << message }
      db.loggers << logger
      yield
      said
    ensure
      db.loggers.delete(logger)
    end

    def test_every_page_answers_and_as_json
      PAGES.each do |path|
        get path

        assert_equal 200, last_response.status, path
        address, query = path.split("?")

        data = json("#{address == "/" ? "/" : address}.json?#{query}")

        assert_kind_of Hash, data.is_a?(Array) ? {} : data, path
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

    # US customary works throughout: no metric quantity is left on the pages of a property that is kept in it, but where
    # units are turned into each other.
    def test_a_us_property_is_said_in_us_units
      id = patch("P-05").id
      pages = ["/survey?at=#{patch("P-05").property_id}", "/survey/patches/#{id}", "/decide?patch=#{id}",
               "/mix?patch=#{id}", "/mix?patch=#{id}&vessel=tank", "/work?patch=#{id}&method=lever_pull",
               "/replant?patch=#{id}", "/season"]
      pages.each do |path|
        get path
        text = Nokogiri::HTML(last_response.body).tap do |page|
          page.css("script, svg, .reasons, .brief > p, " \
                   "li .small, td.small, select, .every-way").remove
        end.at("body").text

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

    # But for the trail: who took a file out.
    def test_what_asks_writes_nothing
      id = patch("Q-07").id
      pages = [*ASKED, "/survey/patches/#{id}", "/recheck/patches/#{id}", "/work?patch=#{id}", "/records/check/1"]
      pages.each do |path|
        written = statements { get path }.grep(/INSERT|UPDATE|DELETE|BEGIN/).grep_v(/INSERT INTO `trail`/)

        assert_equal [200, []], [last_response.status, written], path
      end
    end

    # What nobody types, but something sends: a field in pieces, numbers past all numbers, a week of four hundred
    # letters.
    def test_a_form_sent_askew_is_an_error_in_words
      key = Core::Identify::Key.new({}, site: patch("Q-07").property.site(today), date: today,
                                    region: patch("Q-07").property.region)
      report = Store::Report.write(patch("Q-07").property, key, patch: nil).id
      point = JSON.generate(type: "Point", coordinates: [-91.4, 38.0])
      [["/survey/arrivals", { file: { x: "1" } }], ["/survey/layers", { file: { x: "1" } }],
       ["/season/weather/files", { file: { tempfile: "1" } }],
       ["/survey/walk", { file: { x: "1" } }], ["/survey/walk/photos", { photos: [{ x: "1" }] }],
       ["/identify/reports/#{report}/photos", { photos: [{ x: "1" }] }],
       ["/decide/plan", { from: today.iso8601, weeks: "26", hours: "16", goal: "stop_spread", budget: "1e400" }],
       ["/decide/plan", { from: today.iso8601, weeks: "26", hours: "16", goal: "stop_spread", mix: "9" * 400 }],
       ["/survey/patches", { geometry: point, infested: "1e400" }]].each do |path, sent|
        send_form :post, path, **sent

        assert_equal 422, last_response.status, "#{path} #{sent.to_s[0, 60]}"
      end
      odd = [{ radius: "1e308" }, { radius: "-1e308" }, { radius: "9" * 400 }, { cover_class: ["1"] },
             { geometry: [{ x: "1" }] }]
      odd.each do |sent|
        send_form :post, "/survey/measure", geometry: point, **sent

        assert_operator last_response.status, :<, 500, sent.to_s[0, 60]
      end
      send_form :post, "/survey/arrivals", file: upload("code,lat,lon\nZ-1,38.0012,-91.4\n", "one.csv")
      send_form :put, "/survey/arrivals/#{Store::Arrival.last.id}", column: [{ x: "1" }]

      assert_operator last_response.status, :<, 500
    end

    def test_faults_of_the_file_are_said_in_words
      { "SQLite3::FullException: database or disk is full" => "the disk is full",
        "SQLite3::ReadOnlyException: attempt to write a readonly database" => "read-only",
        "SQLite3::BusyException: database is locked" => "too many are writing" }.each do |fault, words|
        Store::Task.stub(:create, ->(*) { raise Sequel::DatabaseError, fault }) do
          send_form :post, "/recheck/tasks", patch: patch("Q-06").id, kind: "check", reason: "Look", wait: "date",
                    due_on: "2027-05-01"
        end

        assert_equal 503, last_response.status
        assert_includes last_response.body, words
        assert_equal 200, get("/").status, "and the next request is served"
      end
    end

    def test_statics_are_kept_by_what_they_hold_and_pages_are_packed
      get "/", {}, "HTTP_ACCEPT_ENCODING" => "gzip"

      assert_equal "gzip", last_response.headers["content-encoding"]
      css = Zlib.gunzip(last_response.body)[%r{/css/thistle\.css\?v=\h{12}}]
      get css

      assert_equal "public, max-age=31536000, immutable", last_response.headers["cache-control"]
    end

    def test_long_lists_come_a_page_at_a_time
      codes = []
      path = "/survey.json"
      page = Web::Page::LISTED
      silence_warnings { Web::Page.const_set(:LISTED, 4) }
      while path
        codes.concat(json(path).map { |one| one["code"] })
        path = last_response.headers["link"].to_s[/<(.*)>; rel="next"/, 1]
      end

      assert_equal patch("Q-06").property.live_patches.select_map(:code).sort, codes.sort
    ensure
      silence_warnings { Web::Page.const_set(:LISTED, page) }
    end

    private

    def silence_warnings
      was, $VERBOSE = $VERBOSE, nil
      yield
    ensure
      $VERBOSE = was
    end
  end
end
