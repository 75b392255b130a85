# frozen_string_literal: true

# What `rake bench` measures, each as a ratio to a named baseline in the same run, on a throwaway file:
# a property with 20 000 patches and 2 000 open tasks.
require "rack/mock"
require "tmpdir"
require_relative "../thistle"
require_relative "decide"
require_relative "identify"
require_relative "measure"
require_relative "mix"
require_relative "recheck"
require_relative "replant"
require_relative "season"
require_relative "survey"
require_relative "work"

module Thistle
  class Bench
    include Measure

    PATCHES = 20_000
    TASKS = 2_000
    PLANTS = %w[amur_honeysuckle japanese_barberry garlic_mustard tree_of_heaven oriental_bittersweet].freeze
    ROUNDS = 25

    def initialize(folder)
      @app = Web::Boot.call(folder)
      Demo::Land.new.load
      @property = Store::Property.first
      @db = Sequel::Model.db
      fill
    end

    def run(only = ARGV.first)
      return send(only) if only

      patch_page
      today
      season
      decide
      survey
      identify
      mix
      work
      recheck
      replant
    end

    def season = SeasonBench.new(self, Store::Property.order(:id).last).run

    def decide = DecideBench.new(self, @property).run

    def survey = SurveyBench.new(self, @property).run

    def mix = MixBench.new(self, @property).run

    def work = WorkBench.new(self, @property).run

    def recheck = RecheckBench.new(self, @property).run

    def replant = ReplantBench.new(self, @property).run

    def identify = IdentifyBench.new(@property.site(Store::Setting.today)).run { |path| get(path) }

    def get(path)
      Rack::MockRequest.new(@app).get(path, "HTTP_HOST" => "127.0.0.1").tap { |r| raise r.body if r.status != 200 }
    end

    # The median of some rounds, seconds.
    def time(rounds = ROUNDS, &work) = Array.new(rounds) { clock(&work) }.sort[rounds / 2]

    def say(what, ours, baseline, bare, asked)
      puts format("%-52s %8.1f ms   %4.1f times %s, %.1f ms (asked: within %d)", what, ours * 1000, ours / bare,
                  baseline, bare * 1000, asked)
    end

    private

    def fill
      random = Random.new(1)
      rows = Array.new(PATCHES) { |n| patch_row(n, random) }
      @db.transaction { rows.each_slice(500) { |slice| @db[:patches].multi_insert(slice) } }
      ids = @db[:patches].where(Sequel.like(:code, "X-%")).select_map(:id).first(TASKS)
      tasks = ids.map do |id|
        { patch_id: id, kind: "check", due_on: Date.new(2026, 5, 1), reason: "bench", source: "memory" }
      end
      @db.transaction { @db[:tasks].multi_insert(tasks) }
      puts "#{PATCHES} patches, #{TASKS} open tasks"
    end

    # Every tenth patch still wants work; the rest are quiet.
    def patch_row(n, random)
      lon, lat = @property.longitude + random.rand(-0.05..0.05), @property.latitude + random.rand(-0.05..0.05)
      corners = [[0, 0], [3e-4, 0], [3e-4, 2e-4], [1e-4, 3e-4], [0, 0]]
      ring = corners.map { |x, y| [(lon + x).round(7), (lat + y).round(7)] }
      now = Time.now.utc
      { property_id: @property.id, code: "X-#{n}", plant_key: PLANTS[n % PLANTS.size],
        state: (n % 10).zero? ? "standing" : "quiet",
        geometry: JSON.generate("type" => "Polygon", "coordinates" => [ring]),
        west: ring.map(&:first).min, east: ring.map(&:first).max,
        south: ring.map(&:last).min, north: ring.map(&:last).max, gross_m2: 700.0,
        stems: 20, stem_size: "thumb", cover_class: 2,
        slope: "flat", shape_from: Date.new(2025, 5, 1),
        water_m: 80.0, natives_near: true, seen_on: Date.new(2025, 5, 1), lock_version: 0, created_at: now,
        updated_at: now }
    end

    def patch_page
      id = Store::Patch.first(code: "Q-07").id
      get("/survey/patches/#{id}")
      queries = log { get("/survey/patches/#{id}") }
      @raw ||= SQLite3::Database.new(Store::Database.path)
      bare = time { queries.each { |sql| @raw.execute(sql) } }
      rows = time { queries.each { |sql| @db.fetch(sql).all } }
      ours = time { get("/survey/patches/#{id}") }
      say "patch page (#{queries.size} queries)", ours, "its queries as rows through the store", rows, 5
      say "patch page (#{queries.size} queries)", ours, "its bare queries", bare, 5
    end

    def today
      get("/")
      puts format("%-52s %8.1f ms   (asked: under 250 ms)",
                  "Today, #{TASKS} open tasks, #{Store::Patch.wanting_work.count} open patches", time(7) {
                                                                                                   get("/")
                                                                                                 } * 1000)
    end
  end
end

Dir.mktmpdir { |folder| Thistle::Bench.new(folder).run }
