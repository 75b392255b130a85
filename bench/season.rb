# frozen_string_literal: true

module Thistle
  # The year page of a property with sixty plants, from ten years of its own station's days in the file; and Today over
  # four properties of which this is one.
  class SeasonBench
    PLANTS = 60
    ROUNDS = 7

    def initialize(bench, property)
      @bench, @property, @db = bench, property, Sequel::Model.db
      weather
      patches
    end

    def run
      bare = @bench.time(ROUNDS) { rows }
      say "year page, cold, #{PLANTS} plants, #{rows.size} days", @bench.time(ROUNDS) { cold }, "reading its days bare",
          bare, "under 400 ms"
      @bench.get(address)
      say "year page, warm", @bench.time(ROUNDS) { @bench.get(address) }, "reading its days bare", bare, "under 60 ms"
    end

    private

    def address = "/season?at=#{@property.id}"
    def rows = @db[:weather_days].where(property_id: @property.id).select_map(%i[date tmin tmax rain wind humidity])

    # As after a start: nothing of this place is known yet.
    def cold
      Store::Property.sites.clear
      @bench.get(address)
    end

    def say(what, ours, baseline, bare, asked)
      puts format("%-52s %8.1f ms   %4.1f times %s, %.1f ms (asked: %s)", what, ours * 1000, ours / bare, baseline,
                  bare * 1000, asked)
    end

    def weather
      today = Store::Setting.today
      days = StandIns::WeatherStation.new(seed: 7, climate: JSON.parse(@property.climate))
                                     .daily(Date.new(today.year - 10)..(today + 9))
      @db.transaction do
        file = @db[:weather_files].insert(property_id: @property.id, filename: "bench.csv", mapping: "{}",
                                          taken_at: Time.now.utc,
                                          created_at: Time.now.utc)
        rows = days.map do |day|
          { property_id: @property.id, file_id: file, **day.to_h.slice(*Store::WeatherFile::DAY, :date) }
        end
        rows.each_slice(500) { |slice| @db[:weather_days].multi_insert(slice) }
        @db[:properties].where(id: @property.id).update(feed: "own", season_version: Sequel[:season_version] + 1)
      end
    end

    # A small triangle a plant.
    def patches
      seen = { state: "quiet", seen_on: Date.new(2025, 5, 1), created_at: Time.now.utc, updated_at: Time.now.utc }
      Core::Knowledge.shipped.invaders.first(PLANTS).each_with_index do |plant, n|
        lon, lat = @property.longitude + (n * 1e-4), @property.latitude
        ring = [[lon, lat], [lon + 5e-5, lat], [lon + 5e-5, lat + 5e-5], [lon, lat]]
        @db[:patches].insert(property_id: @property.id, code: "Y-#{n}", plant_key: plant.key, west: lon, east: lon,
                             south: lat, north: lat, **seen,
                             geometry: JSON.generate("type" => "Polygon", "coordinates" => [ring]))
      end
    end
  end
end
