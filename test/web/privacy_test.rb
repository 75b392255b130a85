# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  # What each person of the demo can reach by its pages, and what none of these pages may say to them.
  class PrivacyTest < RackTest
    OF_A_ROUTE = 2 # addresses that are looked at
    # Of the demo: a rare native's name, whom to call, a licence's number, what somebody cannot do.
    SECRETS = { "the place of rare plants" => /slipper/i, "whom to call" => /555-01[^0]\d|555-010[^0]/,
                "a licence" => /MA-2291/, "what somebody cannot do" => /Not: (heights|thorn|work)/i }.freeze
    MAY = { "J. Finch" => ["the place of rare plants", "whom to call", "what somebody cannot do"], "T. Abara" => [],
            "R. Lindqvist" => [], "L. Tran" => [] }.freeze
    JSON_TOO = %w[/survey/ground /survey/zones /work/people /mix/records / /work/days/1 /recheck
                  /season/calendar].freeze

    MAY.each do |name, may|
      define_method("test_#{name[/\w+$/].downcase}_reaches_what_is_drawn_and_reads_no_secret") do
        look_as(name)
        faults = crawl.flat_map { |address, body| secrets(address, body, may) } + @dead

        assert_empty faults
        assert_operator @seen.size, :>, 30
      end
    end

    # The square hides where in it the plants are, and has the same corners for every place within it.
    def test_a_secret_zone_is_a_square_of_the_map
      zone = Store::Zone.where(kind: "rare_plants").first
      look_as("R. Lindqvist")
      told = json("/survey/ground")["features"].find { |one| one["properties"]["kind"] == "rare_plants" }
      ring = told["geometry"]["coordinates"].first
      west, east = ring.map(&:first).minmax
      south, north = ring.map(&:last).minmax

      assert_nil told["properties"]["name"]
      assert_equal [0.0] * 4, [west, east, south, north].map { |at| (at / 0.005 % 1).round(6) % 1 }
      assert west <= zone.west && zone.east <= east && south <= zone.south && zone.north <= north
      look_as("M. Oakes")

      assert_equal "Yellow lady's slipper",
                   json("/survey/ground")["features"].find { |one| one["properties"]["kind"] == "rare_plants" }
                                                     .dig("properties", "name")
    end

    # What a phone takes along to reckon with names no secret place, and no shelf to whoever does not mix.
    def test_what_a_phone_reckons_with
      told = { "M. Oakes" => [false, true], "R. Lindqvist" => [false, true], "L. Tran" => [false, false] }
      said = told.keys.to_h do |name|
        look_as(name)
        bytes = json("/pocket/land.json")["land"].unpack1("m0")
        [name, [bytes.match?(/slipper/i), bytes.include?("Stump concentrate")]]
      end

      assert_equal told, said
    end

    # What a landowner takes home of the ground holds no notes, and nothing of other ground.
    def test_a_landowners_files
      patch = Store::Property.first(prefix: "B").live_patches.first.update(note: "Dog is loose at the Millers")
      look_as("L. Tran")
      %w[geojson csv gpx kml kmz gpkg zip].each do |kind|
        get "/survey/export/#{kind}"
        next if last_response.status == 404

        refute_includes last_response.body.b, "Millers".b, kind
      end
      get "/survey/export/geojson"

      assert_includes last_response.body, patch.code
      refute_includes last_response.body, "Q-0"
    end

    # A steward chooses what a link shows; of other ground it shows nothing.
    def test_a_steward_makes_a_link
      plan = Store::LandPlan.first
      get "/members?at=#{plan.property_id}"

      assert_said %(<option value="plan-#{plan.id}")
      asked = { for_whom: "Dr. Vale", until_on: "2026-06-01" }
      send_form :post, "/guests", shown: "plan-#{plan.id}", **asked
      path = last_response.body[%r{(/shared/[\w-]+)}, 1]

      assert path
      send_form :post, "/guests", shown: "plan-#{plan.id}", at: Store::Property.first(prefix: "B").id, **asked

      assert_equal 422, last_response.status
      assert_equal 1, Store::GuestLink.count
    end

    # A calendar's link shows that property's, until its day; another key shows nothing.
    def test_a_guests_calendar
      _, key = Store::GuestLink.make(Store::Property.first(prefix: "B"), kind: "calendar", for_whom: "The Trans",
                                                                         until_on: Date.new(2026, 5, 12))
      clear_cookies

      assert_includes get("/calendars/#{key}.ics").body, "BEGIN:VCALENDAR"
      assert_equal 404, get("/calendars/#{key.reverse}.ics").status
      assert_equal 404, get("/shared/#{key}").status
      Store::Setting.write("today", "2026-05-13")

      assert_equal 404, get("/calendars/#{key}.ics").status
    end

    # A guest by a link sees one sheet, answers it under the link's name, and nothing else.
    def test_a_guest_sees_one_thing
      send_form :post, "/identify/reports", "c[habit]": "vine", patch: patch("Q-03").id
      report = Store::Report.last
      _, key = Store::GuestLink.make(report.property, kind: "sheet", record_id: report.id, for_whom: "Dr. Vale",
                                                      until_on: Date.new(2026, 6, 1))
      Store::Setting.write(Store::Account::DEMO, "")
      clear_cookies
      get "/shared/#{key}"
      follow_redirect!

      assert_equal 200, last_response.status
      inside = %w[/ /survey /records /work/people /identify/reports /members].select { |path| get(path).status == 200 }

      assert_empty inside
      get "/identify/reports/#{report.id}"
      fields = { answer_key: report.likeliest.first.first.key, answered_on: "2026-05-12", answered_by: "Somebody",
                 authenticity_token: last_response.body[/name="csrf" content="([^"]+)"/, 1] }
      post "/identify/reports/#{report.id}/answer", fields

      assert_equal "Dr. Vale", report.refresh.answered_by
      Store::GuestLink.first.finish

      assert_equal 303, get("/identify/reports/#{report.id}").status
    end

    private

    def look_as(name)
      get "/glossary"
      post "/account/look-as", account: Store::Account.first(name:).id,
                               authenticity_token: last_response.body[/name="csrf" content="([^"]+)"/, 1]
    end

    # {address => body} of what the pages lead to; what leads nowhere is noted in @dead.
    def crawl
      @seen, @dead = {}, []
      by_route = Hash.new(0)
      @from = {}
      waiting = ["/", *JSON_TOO.map { |path| "#{path}.json".sub("/.json", "/.json") }]
      while (address = waiting.shift)
        route, = Web::Addresses.route(Web::App, "GET", address.split("?").first.delete_suffix(".json"))
        next if @seen.key?(address) || (route && !address.include?(".json") && (by_route[route] += 1) > OF_A_ROUTE)

        visit(address, waiting)
      end
      @seen
    end

    def visit(address, waiting)
      get address
      nowhere = last_response.status == 404 && !address.include?(".json")
      return @dead << "#{@from[address]}: #{address} leads nowhere" if nowhere

      @seen[address] = last_response.body
      return unless last_response.media_type == "text/html"

      found = Nokogiri::HTML5(last_response.body).css("a[href]").map { |one| one["href"].split("#").first.to_s }
                      .grep(%r{\A/(?!account/(?:sign|pass|forg|change|codes|no-|recovery))})
      found.each { |one| @from[one] ||= address }
      waiting.concat(found)
    end

    def secrets(address, body, may)
      return [] if address == "/account/data" # one's own

      SECRETS.except(*may).filter_map { |what, pattern| "#{address} tells #{what}" if body.b.match?(pattern) }
    end
  end
end
