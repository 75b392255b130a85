# frozen_string_literal: true

module Thistle
  # Survey at a size: a file of 100 000 areas comes in, is looked at, panned over and summed.
  class SurveyBench
    FEATURES = 100_000
    ACROSS = 316
    PLANTS = ["Amur honeysuckle", "Japanese barberry", "Garlic mustard", "Tree-of-heaven",
              "Oriental bittersweet"].freeze

    def initialize(bench, property)
      @bench, @property = bench, property
      @db = Sequel::Model.db
    end

    def run
      import
      viewport
      panning
      totals
    end

    private

    # Areas on a grid about 40 m apart, each with five corners and six columns.
    def file
      random = Random.new(3)
      features = Array.new(FEATURES) do |n|
        lon = @property.longitude + 0.2 + (0.00046 * (n % ACROSS))
        lat = @property.latitude - 0.06 + (0.00036 * (n / ACROSS))
        corners = [[0, 0], [3e-4, 0], [random.rand(2e-4..3e-4), 2e-4], [1e-4, 2.4e-4], [0, 0]]
        ring = corners.map { |x, y| [(lon + x).round(7), (lat + y).round(7)] }
        { type: "Feature", geometry: { type: "Polygon", coordinates: [ring] },
          properties: { code: "B-#{n}", plant: PLANTS[n % 5], seen_on: "2025-05-01", stems: n % 90,
                        cover_percent: n % 100, note: "row #{n}" } }
      end
      JSON.generate(type: "FeatureCollection", features:)
    end

    def import
      bytes = file
      bare = @bench.clock { bare_import(bytes) }
      ours = @bench.clock do
        arrival = Store::Arrival.draft(@property, "bench.geojson", Formats::Reader.read(bytes), format: "GeoJSON")
        arrival.look(seen_on: Date.new(2026, 5, 12), at_once: true)
        arrival.take(seen_on: Date.new(2026, 5, 12), at_once: true)
        raise "only #{arrival.patches_dataset.count} came in" unless arrival.patches_dataset.count == FEATURES
      end
      @bench.say "#{FEATURES} areas read, dry run and taken", ours, "the file parsed and inserted bare", bare, 4
      most = File.read("/proc/self/status")[/VmHWM:\s+(\d+)/, 1].to_i / 1024.0
      puts format("%-52s %8.0f MB  (asked: under 600 MB)", "most memory so far, this process and its file", most)
    end

    # JSON.parse, then the same columns into a table of the same shape with the same indexes and tree, in one
    # transaction.
    def bare_import(bytes)
      @db.transaction(rollback: :always) do
        insert = nil
        JSON.parse(bytes)["features"].each_slice(500) do |slice|
          rows = slice.map { |feature| bare_row(feature) }
          insert = @db[:patches].multi_insert(rows)
        end
        insert
      end
    end

    def bare_row(feature)
      lons, lats = feature["geometry"]["coordinates"].first.transpose
      facts = feature["properties"]
      now = Time.now.utc
      { property_id: @property.id, code: facts["code"], plant_key: facts["plant"], state: "reported",
        geometry: JSON.generate(feature["geometry"]),
        west: lons.min, east: lons.max, south: lats.min, north: lats.max, stems: facts["stems"],
        cover_percent: facts["cover_percent"], note: facts["note"], seen_on: facts["seen_on"], slope: "flat",
        lock_version: 0,
        created_at: now, updated_at: now }
    end

    def box(span = 0.006)
      lon, lat = @property.longitude + 0.27, @property.latitude
      [lon - span, lat - span, lon + span, lat + span]
    end

    def viewport
      bounds = box
      bare = @bench.time { bare_viewport(bounds) }
      ours = @bench.time { @bench.get("/survey/features?bbox=#{bounds.join(",")}") }
      @bench.say "viewport of #{count(bounds)} among #{Store::Patch.count} patches", ours,
                 "R*Tree and JSON in SQLite alone", bare, 2
    end

    def count(bounds) = JSON.parse(@bench.get("/survey/features?bbox=#{bounds.join(",")}").body)["features"].size

    # The R*Tree query and JSON encoding, nothing else, on the raw driver.
    def bare_viewport(bounds)
      @raw ||= SQLite3::Database.new(Store::Database.path)
      @raw.get_first_value(<<~SQL, bounds)
        SELECT json_group_array(json_object('id', p.id, 'geometry', json(p.geometry), 'code', p.code, 'state', p.state))
        FROM patch_extents e JOIN patches p ON p.id = e.id
        WHERE e.east >= ?1 AND e.north >= ?2 AND e.west <= ?3 AND e.south <= ?4
      SQL
    end

    # A quarter of the view further east: only what is new is sent.
    def panning
      here = box
      there = [here[0] + 0.003, here[1], here[2] + 0.003, here[3]]
      whole = @bench.get("/survey/features?bbox=#{there.join(",")}").body.bytesize
      part = @bench.get("/survey/features?bbox=#{there.join(",")}&seen=#{here.join(",")}").body.bytesize
      puts format("%-52s %8.0f kB  of %.0f kB for the whole view", "panning a quarter of the view sends", part / 1024.0,
                  whole / 1024.0)
    end

    def totals
      today = Date.new(2026, 5, 12)
      ours = @bench.time(7) do
        Store::Totals.new(@property).then { |t| [t.whole, t.by_plant, t.by_state, t.by_zone, t.by_year(today)] }
      end
      puts format("%-52s %8.1f ms   (asked: under 150 ms)",
                  "totals over #{@property.live_patches.count} patches, by everything", ours * 1000)
    end
  end
end
