# frozen_string_literal: true

require "open3"
require "test_helper"

module Thistle
  # A file of the version before, with patches in it, is whole after the application has opened it.
  class UpgradeTest < Minitest::Test
    OLD = <<~RUBY
      require "json"
      require "./thistle"
      require "sequel"
      Sequel.extension :migration
      old = Sequel.sqlite(File.join(ARGV[0], "thistle.db"))
      Sequel::Migrator.run(old, Thistle::Store::Database::MIGRATIONS, target: 2)
      id = old[:properties].insert(name: "Old ground", prefix: "O", latitude: 38.0, longitude: -91.4, station_seed: 1,
                                   climate: ARGV[1])
      ring = ->(x, w) do
        corners = [[x, 38.0], [x + w, 38.0], [x + w, 38.001], [x, 38.001], [x, 38.0]]
        JSON.generate(type: "Polygon", coordinates: [corners])
      end
      old[:zones].insert(property_id: id, kind: "water", geometry: ring.(-91.41, 0.001))
      now = Time.now.utc
      [["O-1", -91.4], ["O-2", -91.3995]].each do |code, x|
        patch = old[:patches].insert(property_id: id, code:, state: code == "O-2" ? "standing" : "quiet",
                                     geometry: ring.(x, 0.001), west: x, east: x + 0.001, south: 38.0, north: 38.001,
                                     gross_m2: 9000.0, cover_class: 2, seen_on: Date.new(2024, 5, 1), slope: "flat",
                                     lock_version: 0, created_at: now, updated_at: now)
        work = old[:treatments].insert(patch_id: patch, done_on: Date.new(2025, 4, 1), method_key: "dig_crown",
                                       created_at: now)
        old[:tasks].insert(patch_id: patch, treatment_id: work, kind: "check", due_on: Date.new(2025, 6, 1),
                           rain_mm: 20, reason: "Rain", source: "memory")
        old[:checks].insert(patch_id: patch, checked_on: Date.new(2025, 5, 1), resprouts: 0, missed: 0, seedlings: 0,
                            created_at: now)
      end
    RUBY
    NEW = <<~RUBY
      require "json"
      require "./thistle"
      Thistle::Web::Boot.call(ARGV[0])
      rows = Thistle::Store::Patch.order(:code).map do |p|
        [p.code, p.shape_from, p.shared_m2.round, p.water_m.round, p.history.records.size]
      end
      waits = Thistle::Store::Task.map { |t| [t.awaited.to_data, t.since_on] }.uniq
      print JSON.generate(rows:, waits:, zones: Sequel::Model.db[:zone_extents].count,
                          copies: Dir[File.join(ARGV[0], "*.before-*")].size)
    RUBY

    # What Season kept of labels, in the version before the shelf.
    LABELLED = <<~RUBY
      require "./thistle"
      require "sequel"
      Sequel.extension :migration
      old = Sequel.sqlite(File.join(ARGV[0], "thistle.db"))
      Sequel::Migrator.run(old, Thistle::Store::Database::MIGRATIONS, target: 9)
      id = old[:properties].insert(name: "Old ground", prefix: "O", latitude: 38.0, longitude: -91.4, station_seed: 1,
                                   climate: ARGV[1])
      old[:labels].insert(property_id: id, kind: "foliar", product: "Leaf spray", wind_high: 12.0, rainfast_h: 4.0)
    RUBY
    SHELF = <<~RUBY
      require "json"
      require "./thistle"
      Thistle::Web::Boot.call(ARGV[0])
      product = Thistle::Store::Product.first
      print JSON.generate(name: product.name, limits: Thistle::Store::Property.first.label_limits,
                          warnings: Thistle::Web::Mix::Shelf.new(Thistle::Store::Property.first, Date.today)
                                                                       .rows.first.warnings)
    RUBY

    def run_ruby(script, *args)
      out, said, status = Open3.capture3("ruby", "-e", script, *args, chdir: ROOT)

      assert_predicate status, :success?, said
      out
    end

    def test_labels_become_products_in_use
      Dir.mktmpdir do |dir|
        run_ruby(LABELLED, dir, JSON.generate(Testing::CLIMATE))
        found = JSON.parse(run_ruby(SHELF, dir))

        assert_equal "Leaf spray", found["name"]
        assert_equal({ "foliar" => { "wind_high" => 12.0, "rainfast_h" => 4.0 } }, found["limits"])
        assert_includes found["warnings"], "No active ingredient was entered. Enter it to mix this product."
      end
    end

    def test_a_file_of_the_version_before
      Dir.mktmpdir do |dir|
        run_ruby(OLD, dir, JSON.generate(Testing::CLIMATE))
        found = JSON.parse(run_ruby(NEW, dir))
        half = Core::Survey::Geodesic.area([[0, 38.0], [0.0005, 38.0], [0.0005, 38.001], [0, 38.001]])

        assert_equal [["O-1", "2024-05-01", 790, 2], ["O-2", "2024-05-01", 834, 2]],
                     found["rows"].map { |row| row.values_at(0, 1, 3, 4) }
        assert_equal 0, found["rows"][0][2]
        assert_in_delta half, found["rows"][1][2], half * 1e-3, "the half that both lie on"
        assert_equal [1, 1], found.values_at("zones", "copies")
        assert_equal [[{ "rain_mm" => 20.0, "within" => 1, "days_after" => 3 }, "2025-04-01"]], found["waits"]
      end
    end
  end
end
