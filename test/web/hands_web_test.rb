# frozen_string_literal: true

require "support/web"

module Thistle
  # Many hands on one file: what asks writes nothing, what was written can be put right, of two who do the same one does
  # it.
  class HandsWebTest < RackTest
    ASKED = %w[/ /.json /identify /survey /survey.json /survey/list /survey/files /survey/zones /survey/searches /survey/totals /season /season/fit /season/calendar
               /season/calendar.ics /decide /decide/first /decide/plan /decide/courses /decide/rules /mix /work /work.json /recheck /recheck.json /replant
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

    def test_what_asks_writes_nothing
      [*ASKED, "/survey/patches/#{patch("Q-07").id}", "/recheck/patches/#{patch("Q-07").id}", "/work?patch=#{patch("Q-07").id}", "/records/check/1"].each do |path|
        written = statements { get path }.grep(/INSERT|UPDATE|DELETE|BEGIN/)

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
      [{ radius: "1e308" }, { radius: "-1e308" }, { radius: "9" * 400 }, { cover_class: ["1"] }, { geometry: [{ x: "1" }] }].each do |sent|
        send_form :post, "/survey/measure", geometry: point, **sent

        assert_operator last_response.status, :<, 500, sent.to_s[0, 60]
      end
      send_form :post, "/survey/arrivals", file: upload("code,lat,lon\nZ-1,38.0012,-91.4\n", "one.csv")
      send_form :put, "/survey/arrivals/#{Store::Arrival.last.id}", column: [{ x: "1" }]

      assert_operator last_response.status, :<, 500
    end

    def test_a_check_is_corrected_and_both_versions_stay
      check = patch("Q-07").checks.last
      path = "/records/check/#{check.id}"
      typed = { checked_on: check.checked_on.iso8601, resprouts: "0", missed: "0", seedlings: "0",
                note: "A third of last year." }
      send_form :post, path, **typed, version: "0", person: "J. Finch"

      assert_equal [422, "regrowing"], [last_response.status, patch("Q-07").state]
      assert_includes last_response.body, "Why is kept with the record: say why"
      assert_includes last_response.body, "J. Finch"
      send_form :post, path, **typed, version: "0", person: "J. Finch", reason: "Counted on the wrong sheet"

      assert_equal 303, last_response.status
      assert_equal ["quiet", []], [patch("Q-07").state,
                                   patch("Q-07").open_tasks.select { |task| task.kind == "treat" }.map(&:reason)]
      get path

      assert_match(%r{<s>150</s></td><td>0}, last_response.body)
      assert_includes last_response.body, "Counted on the wrong sheet"
      send_form :post, path, **typed, missed: "2", version: "0", person: "M. Oakes", reason: "Two more"

      assert_equal [409, 0], [last_response.status, check.refresh.missed], "whoever saw the older version is told"
      assert_includes last_response.body, "Someone else corrected it"
    end

    def test_work_is_taken_back_and_brought_back_with_all_that_followed
      before = told
      work = patch("Q-06").treatments.last
      send_form :post, "/records/treatment/#{work.id}/take-back", version: "0", person: "T. Abara",
                reason: "It was Q-05"

      assert_equal ["standing", 0], [patch("Q-06").state, patch("Q-06").open_tasks.size]
      assert_includes get("/survey/patches/#{patch("Q-06").id}").body, "1 record taken back"
      refute_includes json("/records.json")["rows"].map { |row| [row["patch"], row["kind"]] }, %w[Q-06 work]
      send_form :post, "/records/treatment/#{work.id}/take-back", version: "1", person: "T. Abara", reason: "Again"

      assert_equal 409, last_response.status
      send_form :post, "/records/treatment/#{work.id}/bring-back", version: "1", person: "T. Abara"

      assert_equal before, told
      assert_equal %w[taken_back brought_back], work.amendments.map(&:act)
    end

    # State and visits of a patch, without their ids.
    def told = patch("Q-06").then { |one| [one.state, one.tasks.map { |task| task.values.except(:id) }] }

    def test_work_on_another_day_keeps_that_days_weather
      work = patch("Q-06").treatments.last
      form = Web::Work::Forms::Treatment.of(work, Core::Units.new, today)
      send_form :post, "/records/treatment/#{work.id}", **form.raw, done_on: "2026-04-02", version: "0",
                person: "J. Finch", reason: "A day off"
      day = work.patch.property.site(today).day(Date.new(2026, 4, 2))

      assert_equal [day.tmax, day.rain], work.refresh.conditions.values_at("tmax", "rain_mm")
      assert_equal "2026-04-02", work.patch.open_tasks.first.since_on.iso8601
      assert_in_delta work.amendments.first.values_before[:hours], work.hours, 1e-9, "what nobody touched is as it was"
    end

    def test_a_sight_names_the_patch_until_it_is_corrected
      seen = patch("Q-05").observations.first
      form = Web::Survey::Forms::Observation.of(seen, Core::Units.new, today)
      send_form :post, "/records/observation/#{seen.id}", **form.raw, plant_key: "tatarian_honeysuckle", version: "0",
                person: "J. Finch", reason: "The flowers"

      assert_equal "tatarian_honeysuckle", patch("Q-05").plant_key
      send_form :post, "/records/observation/#{seen.id}/take-back", version: "1", person: "J. Finch",
                reason: "Not there"

      assert_equal "hit", patch("Q-05").state, "it was treated, whatever it is"
    end

    def test_a_look_again_taken_back_gives_its_figures_back
      one = patch("Q-09")
      before = one.values.slice(:cover_percent, :cover_class, :height_cm)
      send_form :post, "/survey/patches/#{one.id}/again", seen_on: today.iso8601, cover_percent: "64", height: "90"

      assert_in_delta 64, patch("Q-09").cover_percent
      seen = patch("Q-09").observations.last
      form = Web::Survey::Forms::Observation.of(seen, Core::Units.new, today)
      send_form :post, "/records/observation/#{seen.id}", **form.raw, cover_percent: "46", version: "0",
                person: "J. Finch", reason: "Turned round"

      assert_in_delta 46, patch("Q-09").cover_percent
      send_form :post, "/records/observation/#{seen.id}/take-back", version: "1", person: "J. Finch",
                reason: "Another patch"

      assert_equal before, patch("Q-09").values.slice(:cover_percent, :cover_class, :height_cm)
    end

    def test_plantings_and_plans_can_be_put_right
      planting = Store::Planting.create(patch_id: patch("Q-06").id, native_key: "christmas_fern", area_m2: 20.0,
                                        plugs: 40, from_on: today, to_on: today + 30)
      send_form :post, "/records/planting/#{planting.id}", area: "30", plugs: "60", from_on: today.iso8601,
                to_on: (today - 1).iso8601, version: "0", person: "J. Finch", reason: "More came"

      assert_includes last_response.body, "To is before it begins"
      send_form :post, "/records/planting/#{planting.id}", area: "30", plugs: "60", from_on: today.iso8601,
                to_on: (today + 30).iso8601, done_on: today.iso8601, version: "0", person: "J. Finch",
                       reason: "More came"

      assert_equal [60, today], planting.refresh.values.values_at(:plugs, :done_on)
      plan = Store::SeasonPlan.create(property_id: patch("Q-06").property_id, asked: "{}", answer: "{}",
                                      status: "solved")
      send_form :post, "/records/plan/#{plan.id}/take-back", version: "0", person: "J. Finch", reason: "No crew"

      assert_nil Store::SeasonPlan.current(patch("Q-06").property)
      ["/records/plan/0", "/records/nothing/1", "/records/check/x"].each { |path| assert_equal 404, get(path).status, path }
    end

    # What a person asked for is theirs: made on their word, taken back, asked for again.
    def test_visits_asked_for_by_hand
      send_form :post, "/recheck/tasks", patch: patch("Q-06").id, kind: "check", reason: "Look at the spring",
                wait: "date", due_on: "2027-05-01"
      task = Store::Task.first(reason: "Look at the spring")
      send_form :post, "/work/treatments", patch: patch("Q-06").id, method_key: "hand_pull", done_on: today.iso8601,
                crew_size: "2", hours: "1", stems_done: "4"

      assert_predicate task.refresh, :open?
      { "made" => "made", "drop" => "drop" }.each_key do |act|
        send_form :post, "/recheck/tasks/#{task.id}/#{act}"

        refute_predicate task.refresh, :open?
        send_form :post, "/recheck/tasks/#{task.id}/#{act}"

        assert_predicate task.refresh, :open?
      end
      other = patch("Q-06").tasks.find(&:key)
      send_form :post, "/recheck/tasks/#{other.id}/drop"

      assert_equal 404, last_response.status, "what follows from records is not dropped by hand"
    end

    def test_a_look_in_winter_says_nothing
      send_form :post, "/recheck/checks", patch: patch("Q-06").id, checked_on: "2026-01-10", resprouts: "0",
                missed: "0", seedlings: "0"
      follow_redirect!

      assert_includes last_response.body, "Q-06 is hit. Nothing would have shown on that day"
      assert_equal 0, patch("Q-06").life.clean_checks
    end

    def test_today_shows_due_work_that_no_other_row_covers
      board = Web::Today::Board.new(Store::Property.order(:id).all, today)
      shown = board.due.map { |task| [task[:code], task.kind] } + board.groups.values.flat_map(&:items)
                                                                       .map { |item| [board.patch(item.id).code, "treat"] }
      wanted = Store::Task.due(through: today + 7).all.map { |task| [task[:code], task.kind] }

      assert_empty wanted.reject { |_, kind| kind == "treat" }.first(10) - shown
      stub = patch("Q-05")
      Store::Treatment.record(stub, stub.property.site(today), done_on: today - 28, method_key: "limb_up_and_flag",
                              crew_size: 1, hours: 1.0, stems_done: 2)

      Store::Task.exclude(patch_id: stub.id).update(done_on: today)
      due = Web::Today::Board.new([stub.property], today).due.map { |task| [task[:code], task.kind] }

      assert_includes due, %w[Q-05 treat]
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

    def test_work_that_was_cut_off_says_so_and_can_be_asked_for_again
      post "/survey/arrivals", authenticity_token: @token, file: upload("code,lat,lon\nZ-1,38.0012,-91.4\n", "one.csv")
      arrival = Store::Arrival.order(:id).last
      arrival.update(status: "looking")
      Store::Job.create(kind: "arrival", subject_id: arrival.id, pid: 4_194_304, beat_at: Time.now.utc)
      Web::Daybreak.recover

      assert_equal ["failed", Store::Job::LOST], arrival.refresh.values.values_at(:status, :fault)
      assert_includes get("/survey/arrivals/#{arrival.id}").body, "The server stopped before it was done"
      assert_equal 303, send_form(:post, "/survey/arrivals/#{arrival.id}/take").status
      wait_for { arrival.refresh.status == "taken" }
    end

    def test_a_wish_that_is_none_is_refused_and_spoils_nothing
      plan = Store::SeasonPlan.create(property_id: patch("Q-06").property_id, status: "failed", fault: "x",
                                      asked: JSON.generate(from: "2026-05-12", weeks: 8, hours: 8, other: {},
                                                           weights: {}, pins: [], bans: [], goal: "even"))
      [[:week, "soon"], [:week, "a" * 400], [:method, "sorcery"]].each do |field, value|
        send_form :post, "/decide/plan/#{plan.id}/again", patch: patch("Q-06").id, wish: "pin", field => value

        assert_equal [422, 200], [last_response.status, get("/decide/plan").status]
      end
    end

    def test_the_first_page_begins_a_property
      db[:properties].delete
      get "/"
      follow_redirect!

      assert_includes last_response.body, "Your first property"
      send_form :post, "/records/properties", name: "New ground", prefix: "N", units: "metric", texture: "loam",
                latitude: "", longitude: ""

      assert_equal 422, last_response.status
      send_form :post, "/records/properties", name: "New ground", prefix: "N", units: "metric", texture: "loam",
                region: "na_midwest"

      assert_equal [303, 200], [last_response.status, get("/").status]
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

    def wait_for
      60.times do
        return if yield

        sleep 0.1
      end
      flunk "it did not come"
    end

    def silence_warnings
      was, $VERBOSE = $VERBOSE, nil
      yield
    ensure
      $VERBOSE = was
    end
  end
end
