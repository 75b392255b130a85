# frozen_string_literal: true

require "open3"
require "support/web"

module Thistle
  # Whose weather the year rests on: stations, files, soil, labels.
  class WebSeasonWeatherTest < RackTest
    def q = Store::Property.first(prefix: "Q")
    def today = Testing::TODAY

    def see(**fields)
      send_form(:post, "/season/sightings", at: q.id, seen_on: today.iso8601, person: "T. Abara", **fields)
    end

    def test_a_property_begins_with_broad_values_and_says_so
      send_form(:post, "/records/properties", name: "Gully flat", prefix: "q", units: "metric", texture: "clay")
      assert_includes last_response.body, "is taken by another property"
      assert_includes last_response.body, "or a position is needed"
      send_form(:post, "/records/properties", name: "Gully flat", prefix: "gf", units: "metric", texture: "clay",
                region: "australia", climate_kind: "wet_dry")
      page = get("/season").body

      assert_includes page, "No weather of this ground is known"
      assert_includes page, "Its place is not known"
      assert_includes page, "Wind not known"
      assert_equal [200, "GF"], [get("/").status, Store::Property.order(:id).last.prefix]
    end

    def test_felt_soil_goes_before_the_bucket
      see(kind: "soil", said: "saturated")

      day = json("/season/weather.json?at=#{q.id}")["days"].find { |one| one["date"] == today.iso8601 }
      hours = json("/season/fit.json?at=#{q.id}")["hours"].first(24)

      assert_equal "saturated", day["soil"]
      assert(hours.all? { |hour| hour["against"]["pulling"].include?("soil") })
    end

    def test_a_file_of_weather_is_looked_at_taken_and_taken_back
      warmth = ->(date) { 12 * Math.sin((date.yday - 110) / 58.1) }
      rows = (Date.new(2023, 1, 1)..today).map do |date|
        "#{date},#{15 + warmth[date]},#{4 + warmth[date]},#{date.day.even? ? 9 : 0}"
      end
      send_form(:post, "/season/weather/files", at: q.id,
                file: upload("date,tmax,tmin,rain\n#{rows.join("\n")}", "ridge.csv"))
      page = last_response.location

      assert_equal "simulated", q.feed, "nothing is taken by looking"
      get page

      assert_includes last_response.body, "highest temperature"
      units = { "date" => nil, "tmax" => "°C", "tmin" => "°C", "rain" => "mm" }
      columns = units.each_with_index.flat_map do |(key, unit), n|
        [[:"column_#{n}", key], [:"unit_#{n}", unit]]
      end.to_h.compact
      send_form(:post, URI(page).path, zone: "local", **columns)

      assert_equal "own", q.feed
      get "/season"

      assert_includes last_response.body,
                      "From 3 years of this property&#39;s own station and 7 years of broad regional values before it."
      assert_includes last_response.body, "No forecast"
      fit = json("/season/fit.json")["fit"].select { |_, stretches| stretches.any? }

      assert_equal ["pulling"], fit.keys & ["pulling"], "pulling needs no wind"
      assert_empty json("/season/fit.json")["fit"]["foliar"], "no wind was measured: no spraying"
      send_form(:delete, URI(page).path)

      assert_equal "broad", q.feed
      get "/season"

      assert_includes last_response.body, "No weather of this ground is known"
    end

    def test_a_file_that_is_no_weather_says_so
      send_form(:post, "/season/weather/files", at: q.id, file: upload("just words", "notes.txt"))

      assert_equal 422, last_response.status
      send_form(:post, "/season/weather/files", at: q.id,
                file: upload("date,tmax,tmin\n03/04/2026,20,10\n04/05/2026,20,10\n", "days.csv"))
      get last_response.location

      assert_includes last_response.body, "write them as 2026-05-12"
      send_form(:post, "/season/weather", at: q.id, feed: "own", texture: "loam")

      assert_includes last_response.body, "has no days yet"
      send_form(:post, "/season/weather", at: q.id, feed: "simulated", texture: "loam", timezone: "Middle/Earth",
                station_latitude: "40")

      assert_includes last_response.body, "is not a time zone name"
      assert_includes last_response.body, "is needed too: enter both fields or neither"
    end

    # Hopkins' law moves the marks where the station stands elsewhere: a degree south and 122 m lower is eight days.
    def test_a_station_that_stands_elsewhere
      before = Date.iso8601(anchors["bud_swell"]["date"])
      send_form(:post, "/season/weather", at: q.id, feed: "simulated", texture: "loam", elevation: "243.84",
                station_name: "the valley",
                                          station_latitude: (q.latitude - 1).to_s, station_longitude: q.longitude.to_s,
                                          station_elevation: "121.92")

      assert_equal before + 8, Date.iso8601(anchors["bud_swell"]["date"])
      assert_includes get("/season").body, "spring marks are moved 8 days later by Hopkins&#39; law"
      assert_includes last_response.body, "latitude +4.0, longitude +0.0, elevation +4.0"
    end

    private

    def anchors = json("/season.json?at=#{q.id}")["anchors"].to_h { |row| [row["key"], row] }
  end
end
