# frozen_string_literal: true

require "tmpdir"
require "rack/mock"
require_relative "../thistle"
require_relative "measure"

module Thistle
  # The pages that gather, on a file of their own: 10 000 open patches, a fifth of them worked and checked, with their
  # visits, on forty properties. Each beside what is asked, with the queries it makes.
  class PagesBench
    include Measure

    OPEN, PROPERTIES = Integer(ENV.fetch("OPEN", "10000")), Integer(ENV.fetch("PROPERTIES", "40"))
    PLANTS = %w[amur_honeysuckle japanese_barberry garlic_mustard tree_of_heaven oriental_bittersweet multiflora_rose
                wild_parsnip burning_bush].freeze
    PAGES = { "/" => 300, "/recheck" => 500, "/recheck?all=1" => 500, "/decide/first" => 800, "/work" => 300,
              "/season" => 400 }.freeze
    ROUNDS = 5

    def initialize(folder)
      @app = Web::Boot.call(folder)
      Demo::Land.new.load
      @property, @db = Store::Property.first, Sequel::Model.db
      @random = Random.new(4)
      LOADER.eager_load
      fill
    end

    def run
      puts format("%-52s %s", "the demo alone, queries", @queries.map { |path, n| "#{path} #{n}" }.join(", "))
      PAGES.each do |path, most|
        cold = clock { get(path) }
        queries = log { get(path) }.size
        warm = Array.new(ROUNDS) { clock { get(path) } }.sort[ROUNDS / 2]
        puts format("%-52s %8.1f ms   (asked: under %d ms; the first time %.0f; %d queries)",
                    "#{path}, #{OPEN} open patches", warm * 1000, most, cold * 1000, queries)
      end
      properties
      plan
    end

    private

    # A management plan with all chapters, written and put on paper.
    def plan
      keys = Web::Records::Reports::ManagementPlan::CHAPTERS.keys
      asked = { "parts" => keys, "years" => 5, "notes" => {} }
      record = Store::LandPlan.begin(@property, made_on: @property.today, made_by: "bench", asked:)
      job = Store::Job.start("land_plan", record, total: keys.size)
      writing = clock { job.now { |own| Web::Records::Reports::ManagementPlan.new(record).write(own) } }
      parts = record.refresh.parts
      paper = clock { Web::Records::Reports::Pdf.new("Plan", "bench", parts, @property.measures).render }
      puts format("%-52s %8.1f s    (%.1f s of it the paper; asked of 5000: under 20 s; the process %d MB)",
                  "management plan of #{@property.live_patches.unordered.count} patches", writing + paper, paper,
                  File.read("/proc/self/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024)
    end

    # A warm round of the pages of all properties: nobody's year is worked out twice.
    def properties
      ids = Store::Property.order(:id).select_map(:id)
      around = -> { ids.each { |id| get("/season?at=#{id}") } }
      first = clock(&around)
      puts format("%-52s %8.1f s    (asked: at most a tenth of the first, %.1f s)",
                  "the year page of #{ids.size} properties, again", clock(&around), first)
    end

    def fill
      PAGES.each_key { |path| get(path) }
      @queries = PAGES.to_h { |path, _| [path, log { get(path) }.size] }
      spread
      rows = Array.new(OPEN) { |n| patch_row(n) }
      @db.transaction { rows.each_slice(500) { |slice| @db[:patches].multi_insert(slice) } }
      @ids = @db[:patches].where(Sequel.like(:code, "X-%")).select_order_map(:id)
      work
    end

    # Other lands of other people, each with a weather of its own.
    def spread
      (PROPERTIES - Store::Property.count).times do |n|
        Store::Property.create(@property.values.except(:id, :name, :prefix, :created_at, :updated_at)
                                        .merge(name: "Land #{n}", prefix: format("L%02d", n),
                                               latitude: 36.0 + (n * 0.2), longitude: -92.0 - (n * 0.1)))
      end
    end

    def patch_row(number)
      lon, lat = @property.longitude + @random.rand(-0.05..0.05), @property.latitude + @random.rand(-0.05..0.05)
      corners = [[0, 0], [3e-4, 0], [3e-4, 2e-4], [1e-4, 3e-4], [0, 0]]
      ring = corners.map { |x, y| [(lon + x).round(7), (lat + y).round(7)] }
      { property_id: @property.id, code: "X-#{number}", plant_key: PLANTS[number % PLANTS.size], state: "standing",
        geometry: JSON.generate("type" => "Polygon", "coordinates" => [ring]),
        west: ring.map(&:first).min, east: ring.map(&:first).max,
        south: ring.map(&:last).min, north: ring.map(&:last).max, gross_m2: 700.0,
        stems: @random.rand(1..400), stem_size: %w[pencil thumb wrist].sample(random: @random),
        cover_class: @random.rand(1..6), slope: %w[flat slope steep].sample(random: @random),
        shape_from: Date.new(2025, 5, 1), water_m: @random.rand(0.0..300.0), natives_near: @random.rand < 0.5,
        seen_on: Date.new(2024 + @random.rand(2), 5, 1), lock_version: 0,
        created_at: Time.now.utc, updated_at: Time.now.utc }
    end

    # A fifth was worked last year and checked this spring; two visits stand open on each.
    def work
      worked = @ids.each_slice(5).map(&:first)
      now = Time.now.utc
      @db.transaction do
        Store::Bulk.insert(:treatments, worked.map { |id| treatment(id, now) })
        of = @db[:treatments].where(patch_id: worked).select_hash(:patch_id, :id)
        Store::Bulk.insert(:checks, worked.map { |id| check(id, of[id], now) })
        Store::Bulk.insert(:tasks, worked.flat_map { |id| visits(id, of[id]) })
      end
      Store::Patch.where(id: worked).each do |patch|
        patch.this.update(**patch.history.standing.columns, state: "regrowing")
      end
    end

    def treatment(id, now)
      { patch_id: id, done_on: Date.new(2025, 9, @random.rand(1..28)), method_key: "hand_pull", crew_size: 3,
        hours: 2.0,
        stems_done: 20, created_at: now }
    end

    def check(id, work, now)
      { patch_id: id, treatment_id: work, checked_on: Date.new(2026, 5, 1), resprouts: @random.rand(0..9),
        missed: @random.rand(0..3), seedlings: @random.rand(0..50), created_at: now }
    end

    def visits(id, work)
      [["treat", 3], ["check", 60]].map do |kind, days|
        { patch_id: id, kind:, due_on: Date.new(2026, 5, 10) + days + @random.rand(20), reason: "bench",
          source: "memory",
          treatment_id: work, key: "bench:#{kind}:#{id}" }
      end
    end

    def get(path)
      Rack::MockRequest.new(@app).get(path, "HTTP_HOST" => "127.0.0.1").tap { |r| raise r.body if r.status != 200 }
    end
  end
end

Dir.mktmpdir { |folder| Thistle::PagesBench.new(folder).run }
