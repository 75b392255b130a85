# frozen_string_literal: true

require "support/web"

module Thistle
  # From nothing to the first patch; what of a property can be put right later.
  class WebBeginTest < RackTest
    RING = [[-91.41, 38.0], [-91.40, 38.0], [-91.40, 38.01], [-91.41, 38.01], [-91.41, 38.0]].freeze
    BOUNDARY = JSON.generate(type: "Polygon", coordinates: [RING])

    def begin_land(**told)
      send_form :post, "/records/properties", texture: "loam", **told
      Store::Property.order(:id).last
    end

    # In a file with nothing every page leads to the first property; a boundary drawn is enough for all the rest.
    def test_a_boundary_is_enough
      Sequel::Model.db[:properties].update(put_away_at: Time.now)

      assert_equal 303, get("/work").status
      assert_includes last_response.headers["Location"], "/records/properties/new"
      assert_said "Your first property" if get("/records/properties/new")
      made = begin_land(name: "Harrow Creek", geometry: BOUNDARY)

      assert_includes last_response.headers["Location"], "/survey#patch-form"
      assert_equal %w[H us na_midwest America/Chicago],
                   made.values.values_at(:prefix, :units, :region, :timezone)
      assert_in_delta 38.005, made.latitude, 1e-4
      assert_equal 1, made.zones_of("boundary").size
      send_form :post, "/survey/patches", seen_on: "2026-05-01", plant_key: "garlic_mustard", sure: "yes",
                                          geometry: JSON.generate(type: "Point", coordinates: [-91.405, 38.005])

      assert_equal ["H-01"], made.live_patches.select_map(:code)
      assert_said "H-01" if get("/")
    end

    # Places by country and state (memory): what a steward there would say of region, clock and units.
    PLACES = {
      [38.0, -91.4] => %w[na_midwest America/Chicago us], [44.9, -93.2] => %w[na_midwest America/Chicago us],
      [33.4, -112.0] => %w[na_desert America/Phoenix us], [38.6, -121.5] => %w[na_west America/Los_Angeles us],
      [45.5, -122.8] => %w[na_northwest America/Los_Angeles us], [27.9, -82.0] => %w[na_gulf America/New_York us],
      [46.6, -120.5] => %w[na_mountain America/Los_Angeles us], [30.0, -90.5] => %w[na_gulf America/Chicago us],
      [44.5, -110.5] => %w[na_mountain America/Denver us], [43.7, -79.6] => %w[canada_east America/Toronto metric],
      [49.2, -124.3] => %w[canada_west America/Vancouver metric],
      [53.3, -7.5] => %w[british_isles Europe/Dublin metric],
      [-33.9, 150.9] => %w[australia Australia/Sydney metric],
      [-16.5, 145.3] => %w[australia_north Australia/Brisbane metric],
      [-41.25, 174.9] => %w[new_zealand Pacific/Auckland metric],
      [-33.9, 18.9] => %w[cape Africa/Johannesburg metric], [54.5, -3.1] => %w[british_isles Europe/London metric],
      [48.5, 2.5] => %w[west_europe Europe/Paris metric], [43.5, 4.5] => %w[mediterranean Europe/Paris metric],
      [40.2, -8.4] => %w[mediterranean Europe/Lisbon metric], [0.0, -30.0] => [nil, nil, nil]
    }.freeze

    def test_what_goes_with_a_place
      PLACES.each do |(north, east), usual|
        home = home_at(north, east)

        assert_equal usual, [home.region, home.clock, home.units], [north, east]
      end
      assert_said "Missouri, United States of America", "Clock: America/Chicago" if
        get("/records/properties/place?latitude=38&longitude=-91.4")
    end

    # Thirty places whose year is well known (memory): the climate that a land begun there gets; nil: it is asked.
    CLIMATES = {
      "St. Louis" => [38.6, -90.2, "frost"], "Boston" => [42.4, -71.1, "frost"],
      "Minneapolis" => [44.9, -93.2, "frost"], "Sacramento" => [38.6, -121.5, "winter_wet"],
      "Portland, Oregon" => [45.5, -122.7, "winter_wet"], "Seattle" => [47.6, -122.1, "winter_wet"],
      "Tucson" => [32.2, -110.9, "desert"], "Naples, Florida" => [26.2, -81.6, "wet_dry"],
      "Honolulu" => [21.4, -157.95, nil], "Denver" => [39.7, -104.9, "frost"], "Toronto" => [43.7, -79.6, "frost"],
      "Nanaimo" => [49.2, -124.3, "winter_wet"], "Calgary" => [51.0, -114.1, "frost"],
      "Darwin" => [-12.6, 131.1, "wet_dry"], "Cairns" => [-17.0, 145.6, "wet_dry"],
      "Alice Springs" => [-23.7, 133.9, "desert"], "Perth" => [-32.0, 116.1, "winter_wet"],
      "Adelaide" => [-34.9, 138.8, "winter_wet"], "Brisbane" => [-27.5, 152.7, "mild"],
      "Melbourne" => [-37.8, 145.2, "mild"], "Wellington" => [-41.25, 174.9, "mild"],
      "Auckland" => [-36.95, 174.8, "mild"], "Lisbon" => [38.8, -9.1, "winter_wet"],
      "Bilbao" => [43.2, -2.8, "mild"], "Madrid" => [40.4, -3.7, "winter_wet"], "Rome" => [41.9, 12.6, "winter_wet"],
      "Warsaw" => [52.2, 21.0, "frost"], "Cape Town" => [-33.9, 18.7, "winter_wet"],
      "Johannesburg" => [-26.2, 28.0, nil], "Nairobi" => [-1.3, 36.8, nil]
    }.freeze

    def home_at(north, east) = Store::Whereabouts.home(east, north)

    def test_the_climate_follows_from_the_place_or_is_asked
      found = CLIMATES.transform_values { |north, east, _| home_at(north, east).climate }

      assert_equal CLIMATES.transform_values(&:last), found
      begin_land(name: "Highveld", latitude: "-26.2", longitude: "28.0")

      assert_equal 422, last_response.status
      assert_said "Climate is needed: it does not follow from this place"
      begin_land(name: "Harbour hill", latitude: "-41.25", longitude: "174.9")

      harbour = Store::Property.first(name: "Harbour hill")
      assert_equal %w[mild new_zealand], [harbour.site(Testing::TODAY).climate.key, harbour.region]
    end

    # A longitude that lost its minus does not fit its clock; every zone of the table fits its own land.
    def test_a_clock_is_checked_against_the_sun
      land = { name: "Lost", region: "na_midwest", latitude: "38", timezone: "America/Chicago" }
      begin_land(**land, longitude: "91.4")

      assert_equal 422, last_response.status
      assert_said "12 hours of sun away", 'value="91.4"', 'value="Lost"'
      begin_land(**land, longitude: "-91.4")

      assert_equal 303, last_response.status
      { "Europe/Madrid" => -9.2, "America/Anchorage" => -165.0, "Australia/Perth" => 129.0, "Asia/Kolkata" => 68.5,
        "Pacific/Auckland" => 178.5, "America/Regina" => -110.0 }.each do |clock, longitude|
        assert_nil Core::Survey::Home.odd_hours(clock, longitude), clock
        same = ["Europe/Madrid", "Pacific/Auckland"].include?(clock) # near either meridian a minus changes no hour
        refute_nil Core::Survey::Home.odd_hours(clock, -longitude), clock unless same
      end
    end

    def test_bad_input_loses_nothing
      before = Store::Property.count
      [{ name: "" }, { prefix: "Q" }, { prefix: "no!" }, { geometry: "{" }, { latitude: "38" },
       { timezone: "Here/There" }, { elevation: "high" }].each do |wrong|
        begin_land(name: "Kept Name", region: "na_midwest", **wrong)

        assert_equal [422, before], [last_response.status, Store::Property.count], wrong.inspect
        assert_said 'value="Kept Name"' unless wrong[:name]
      end
      begin_land(name: "Nowhere")

      assert_equal 422, last_response.status
      assert_said "or a position is needed"
    end

    def test_a_boundary_comes_in_a_file
      kml = "<kml><Document><Placemark><Polygon><outerBoundaryIs><LinearRing><coordinates>" \
            "#{RING.map { |at| at.join(",") }.join(" ")}</coordinates></LinearRing></outerBoundaryIs></Polygon>" \
            "</Placemark></Document></kml>"
      made = begin_land(name: "From a file", file: upload(kml, "edge.kml"))

      assert_equal [1, "F"], [made.zones_of("boundary").size, made.prefix]
      begin_land(name: "Broken", file: upload("not a map", "edge.kml"))

      assert_equal 422, last_response.status
      assert_said "That is not GeoJSON", 'value="Broken"'
    end

    # Position, clock and letters can be put right: the year follows, mapped patches keep their codes.
    def test_a_property_moves
      q = Store::Property.first(prefix: "Q")
      get "/?at=#{q.id}"
      send_form :post, "/records/place", latitude: "-41.25", longitude: "174.9", timezone: "Pacific/Auckland",
                                         prefix: "QH", elevation: "30"

      assert_equal 303, last_response.status
      q = q.refresh

      assert_equal ["New Zealand", "QH", true], [q.country, q.prefix, q.site(Testing::TODAY).latitude.negative?]
      assert_equal "Q-01", q.live_patches.get(:code)
      assert_match(/\AQH-\d+\z/, q.next_code)
      send_form :post, "/records/place", latitude: "-41.25", longitude: "-174.9", timezone: "Pacific/Auckland",
                                         prefix: "P"

      assert_equal 422, last_response.status
      assert_said "is taken by another property", 'value="-174.9"'
    end

    # What is put away stands in no list and asks for nothing; brought back it is as it was.
    def test_a_property_is_put_away_and_brought_back
      q = Store::Property.first(prefix: "Q")
      before = json("/recheck.json?all=1")["total"]
      send_form :post, "/records/properties/#{q.id}/put-away"
      today = get("/").body

      refute_includes today, "Q-04"
      refute_includes get("/recheck?all=1").body, "Q-07"
      assert_operator json("/recheck.json?all=1")["total"], :<, before
      assert_said "is put away" if get("/survey/patches/#{patch("Q-04").id}")
      send_form :post, "/records/properties/#{q.id}/bring-back"

      assert_includes get("/").body, "Q-04"
      assert_equal before, json("/recheck.json?all=1")["total"]
    end
  end
end
