# frozen_string_literal: true

require "chunky_png"
require "sqlite3"
require "support/walker"

module Thistle
  # Every address and every form, with odd values in the place of each: never our fault, never slow, never elsewhere.
  class WebWalkTest < RackTest
    PLACE = [-91.35, 37.98].freeze
    POINT = JSON.generate(type: "Point", coordinates: PLACE).freeze
    LINE = JSON.generate(type: "LineString", coordinates: [PLACE, PLACE.map { |degrees| degrees + 0.001 }]).freeze
    GRID = "ncols 4\nnrows 4\nxllcorner -91.35\nyllcorner 37.98\ncellsize 0.001\n#{"1 2 3 4\n2 3 4 5\n" * 2}".freeze
    DAYS = "date,tmin,tmax,rain,wind\n#{(1..30).map { |n| format("2026-04-%02d,5,15,%d,9\n", n, n % 3) }.join}".freeze
    CORNERS = "37.99, -91.35\n37.99, -91.34\n37.98, -91.35"
    SPRAYING = "/season/fit?work=foliar" # past the kinds of work that a sample of its page leads to
    # What stands in for what a form leaves blank.
    GOOD = { "geometry" => POINT, "seen_on" => "2026-05-12", "person" => "Walker", "reason" => "walked",
             "text" => "a step", "hours" => "2", "crew_size" => "2", "resprouts" => "0", "missed" => "0",
             "seedlings" => "0", "sight" => "5", "prefix" => "WK", "area" => "10", "radius" => "2",
             "stems_done" => "3" }.freeze

    PIT = "/season/pit?ball=no&water=no&mottles=no&smell=no"
    # What a phone without signal asks.
    PHONES = [["POST", "/pocket/known", { "keys" => "x" }], ["POST", "/pocket/phones", {}],
              ["POST", "/pocket/phones/1/cut-off", {}], ["POST", "/pocket/phones/1/give-back", {}],
              ["PUT", "/pocket/pieces/x", { "from" => "0" }], ["GET", "/pocket/pieces/x", {}]].freeze

    def test_every_address_and_every_form
      walker = Walker.new(self)
      found = seeds.map { |path, fields| seed(path, fields) }
      walker.crawl([*walker.gets.select(&:plain?).map { |door| door.pattern.to_s }, *found, SPRAYING, PIT])
      unlinked.each { |address| walker.know("GET", address) }
      asked_by_scripts.each { |verb, path, fields| walker.know(verb, path, fields) }

      assert_empty walker.doors.select(&:unknown?).map(&:to_s), "nothing leads there: add it here"
      walker.complete(GOOD)
      walker.ask_all
      walker.send_all(@token)
      walker.look_again

      assert_empty walker.open_doors.map(&:to_s), "let in without a token"

      assert_empty walker.bad.map(&:to_s).uniq.first(20)
    end

    private

    # A file of each kind, and a record of each kind that the demo has none of.
    def seeds
      patch, named = patch("Q-01").id, patch("Q-05").id
      [["/survey/layers", { file: upload(GRID, "grid.asc") }],
       ["/survey/layers", { file: upload(picture, "p.png"), corners: CORNERS }],
       ["/survey/layers", { file: upload(tiles, "t.mbtiles") }],
       ["/survey/arrivals", { file: upload("lat,lon,name\n37.98,-91.35,w1\n", "a.csv") }],
       ["/season/weather/files", { file: upload(DAYS, "w.csv") }],
       ["/season/sightings", { kind: "soil", said: "moist", seen_on: "2026-05-12" }],
       ["/season/calendar/key", {}],
       ["/identify/reports", { "c[habit]" => "vine", "patch" => patch }],
       ["/survey/searches", { geometry: LINE, searched_on: "2026-05-12", sight: 5, "plants[]" => "garlic_mustard" }],
       ["/recheck/tasks", { patch: named, kind: "check", reason: "walk", wait: "date", due_on: "2026-06-12" }],
       ["/recheck/trials", { patch: named, question: "Which?", first_method: "cut_stump", first_how: "half",
                             second_method: "basal_bark", count: "12" }],
       ["/mix/calibration", { way: "plot", ml: "500", side: "10", sprayer: "blue" }],
       ["/work/pictures", { patch: named, moment: "before", file: upload(picture, "p.png") }],
       ["/work/people", { name: "Walker", "roles[]" => %w[volunteer] }],
       ["/work/kit", { kind: "saw", name: "Saws", owned: "4" }],
       ["/work/days", { held_on: "2026-05-16", starts_at: "09:00", ends_at: "13:00", hands: "4" }],
       ["/replant/plans", { patch: named, kind: "plugs", area: "20" }],
       ["/replant/gather/places", { geometry: POINT, native: "indiangrass", plants: "80" }],
       ["/replant/seed", { native: "indiangrass", name: "L-1", grams: "500", cleaned: "true" }],
       ["/decide/rules/off", { rule: "dry_soil", reason: "walk", person: "Walker" }],
       ["/decide/plan", { from: "2026-05-12", weeks: 4, hours: 8, goal: "stop_spread" }]]
    end

    def seed(path, fields)
      send_form(:post, path, **fields)

      assert_equal 303, last_response.status, path
      last_response.location.delete_prefix("http://example.org").split("#").first
    end

    # Addresses that pictures, maps and calendars ask for.
    def unlinked
      grid, picture, tiles = %w[elevation picture tiles].map { |kind| Store::Layer.live.first(kind:).id }
      Store::KeptSearch.keep("oaks", "q=oaks", account_id: Store::Account.first.id)
      report = Store::Report.first
      report.attach(Formats::Image.new("p.png", self.picture))
      ["/records/bundles/#{bring_bundle}", "/identify/photos/#{report.photos_dataset.first.id}",
       "/records/lists/patches/file",
       "/records/lists/seed/workbook",
       "/survey/layers/#{grid}/lines", "/survey/layers/#{grid}/shade",
       "/survey/layers/#{picture}/picture", "/survey/layers/#{tiles}/1/0/0",
       "/survey/arrivals/#{Store::Arrival.first.id}/progress",
       "/calendars/#{Store::Property.exclude(calendar_token: nil).first.calendar_token}.ics",
       "/work/days/#{Store::WorkDay.first.id}/thanks", "/work/pictures/#{Store::Picture.first.id}",
       "/decide/courses/#{Store::Course.first.id}", "/decide/plan/#{Store::SeasonPlan.first.id}/progress",
       "/records/reports/plans/#{Store::LandPlan.first.id}/progress", "/shared/#{guest_key}"]
    end

    def guest_key
      Store::GuestLink.make(Store::Property.first, kind: "plan", record_id: Store::LandPlan.first.id,
                                                   for_whom: "Walker", until_on: Date.new(2026, 6, 1)).last
    end

    def bring_bundle
      Dir.mktmpdir do |folder|
        Store::Bundle::Writer.new([Store::Property.first]).write("#{folder}/b.zip", made_on: "2026-05-12")
        Store::BundleArrival.bring("b.zip", "#{folder}/b.zip").id
      end
    end

    # What is sent by a script, or only offered once something was taken back: verb, path, fields.
    def asked_by_scripts
      patch, course, step = patch("Q-05").id, Store::Course.first.id, Store::CourseStep.first.id
      seen = { "c[habit]" => "vine", "patch" => patch }
      [["POST", "/identify/observations", seen], ["POST", "/identify/reports", seen],
       ["POST", "/survey/measure", { "geometry" => POINT, "width" => "2", "seen_on" => "2026-05-12" }],
       ["POST", "/recheck/control", { "patch" => patch, "resprouts" => "1", "missed" => "0" }],
       ["POST", "/mix/calibration", { "way" => "plot", "ml" => "500", "side" => "10", "sprayer" => "blue" }],
       *%w[drop undo].map { |act| ["POST", "/work/pictures/1/#{act}", {}] },
       ["POST", "/recheck/trials/1/undo", {}], ["POST", "/recheck/trials/1/tags/1", { "state" => "dead" }],
       *%w[people kit days].map { |list| ["POST", "/work/#{list}/1/undo", {}] },
       ["POST", "/work/people/names", { "person" => "1", "name" => "Pond crew" }],
       ["POST", "/replant/plans", { "patch" => patch, "kind" => "seed", "area" => "20" }],
       ["POST", "/replant/plans/1/plants/0", { "x" => "1", "y" => "1", "version" => "0" }],
       ["POST", "/work/days/1/propose", {}],
       ["POST", "/work/days/1/found", { "patch" => patch, "lon" => "-91.4", "lat" => "38.0" }],
       *%w[leave-out take-in].map { |act| ["POST", "/records/looks/1/#{act}", { "version" => "0" }] },
       *PHONES,
       ["POST", "/account/sessions/end", {}], ["POST", "/account/first", { "name" => "W" }],
       ["POST", "/account/seen", { "last" => "1" }], ["POST", "/guests/1/end", {}],
       *%w[comments permission].product(%w[drop undo]).map { |of, act| ["POST", "/#{of}/1/#{act}", {}] },
       ["POST", "/work/cleanings", { "property" => 1, "people" => "two" }],
       ["POST", "/decide/courses/#{course}/leave", {}],
       ["POST", "/decide/courses/#{course}/steps", { "kind" => "check", "due_on" => "2026-06-12", "text" => "walk" }],
       ["POST", "/decide/steps/#{step}", { "due_on" => "2026-06-12", "text" => "walk" }],
       *%w[done drop].map { |act| ["POST", "/decide/steps/#{step}/#{act}", {}] },
       *%w[zones layers searches arrivals].map { |kind| ["POST", "/survey/#{kind}/1/undo", {}] },
       ["POST", "/replant/seed/1/undo", {}], ["POST", "/replant/water", { "patch" => patch }],
       ["POST", "/replant/water/#{patch}/undo", {}],
       ["POST", "/replant/plans/1/counts", { "planting" => "1", "counted_on" => "2026-05-12", "frames" => "5 10" }],
       *%w[drop undo].flat_map do |act|
         %w[counts gather/places].map { |list| ["POST", "/replant/#{list}/1/#{act}", {}] }
       end,
       *%w[drop undo].map { |act| ["POST", "/mix/calibration/1/#{act}", {}] }, ["POST", "/mix/shelf/1/undo", {}],
       ["POST", "/season/sightings/1/undo", {}], ["POST", "/records/treatment/1/bring-back", {}],
       ["POST", "/records/properties/1/bring-back", {}], ["POST", "/records/reports/plans/1/keep", {}],
       *%w[take aside].map { |act| ["POST", "/records/bundles/1/#{act}", {}] },
       ["POST", "/find/kept", { "name" => "trails", "asked" => "q=trail" }],
       *%w[drop keep].map { |act| ["POST", "/find/kept/1/#{act}", {}] },
       ["POST", "/survey/arrivals/1/rows/1/as-read", {}], ["POST", "/records/lists/seed/back/1", {}],
       ["DELETE", "/season/weather/files/1", {}]]
    end

    def picture = ChunkyPNG::Image.new(4, 4).to_blob

    def tiles
      Dir.mktmpdir do |dir|
        db = SQLite3::Database.new("#{dir}/t.mbtiles")
        db.execute_batch("CREATE TABLE metadata(name TEXT, value TEXT); CREATE TABLE tiles(zoom_level INTEGER, " \
                         "tile_column INTEGER, tile_row INTEGER, tile_data BLOB); INSERT INTO metadata VALUES" \
                         "('format','png'),('name','t'),('bounds','-91.4,37.9,-91.3,38')")
        db.execute("INSERT INTO tiles VALUES (1, 0, 0, ?)", [SQLite3::Blob.new(picture)])
        db.close
        File.binread("#{dir}/t.mbtiles")
      end
    end
  end
end
