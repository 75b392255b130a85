# frozen_string_literal: true

require "json"
require "rack/mock"
require "tmpdir"
require_relative "../thistle"

module Thistle
  # What pages and exports cost with a hundred patches and with many, each size in a process of its own.
  class Growth
    MANY = Integer(ENV.fetch("PATCHES", "100000"))
    PLANTS = %w[amur_honeysuckle japanese_barberry garlic_mustard tree_of_heaven oriental_bittersweet].freeze
    PAGES = %w[/ /.json /records /records.json /work /work.json /recheck?all=1 /recheck.json /survey /survey.json
               /survey/list /survey/files /survey/patches/8 /survey/searches /survey/site-map /survey/totals /decide
               /decide?patch=8 /decide/first /decide/rules /season /season/calendar /season/calendar.ics
               /find?q=honeysuckle /find?q=X-1].freeze
    WORST, TIMES = 2000, 1.5 # ms; times what it costs at a hundred
    KINDS = %w[geojson csv kml].freeze

    def run
      few, many = [100, MANY].map { |patches| measured(patches) }
      puts "pages with 100 and with #{MANY} patches (asked: within #{TIMES} times, none over #{WORST} ms):"
      PAGES.each do |path|
        a, b = few["pages"][path], many["pages"][path]
        puts format("  %-24s %7.0f ms %7.0f ms %6.1f times%s", path, a, b, b / a, b > WORST ? "  OVER" : "")
      end
      puts "exports of #{MANY} patches:"
      many["exports"].each do |kind, (seconds, mb, grown)|
        puts format("  %-10s %6.1f s %7.1f MB sent, memory grew by %d MB", kind, seconds, mb, grown)
      end
    end

    # The same on this process's own file.
    def self.report(patches)
      Dir.mktmpdir("thistle") do |folder|
        growth = new
        growth.fill(folder, patches)
        puts JSON.generate(pages: growth.pages, exports: patches == MANY ? growth.exports : {})
      end
    end

    def fill(folder, patches)
      @app = Web::Boot.call(folder)
      Demo::Land.new.load
      @property = Store::Property.first
      rows = Array.new(patches) { |n| patch(n) }
      rows.each_slice(1000) { |some| store(some) }
    end

    def pages
      PAGES.to_h do |path|
        get(path)
        [path, Array.new(3) { clock { get(path) } }.min * 1000]
      end
    end

    # {kind => [seconds, MB, MB of memory that it grew by]}
    def exports
      KINDS.to_h do |kind|
        before = most = memory
        bytes = 0
        seconds = clock do
          Web::Survey::Export.new(@property, kind).each do |piece|
            bytes += piece.bytesize
            most = [most, memory].max
          end
        end
        [kind, [seconds, bytes / 1e6, most - before]]
      end
    end

    private

    def measured(patches)
      JSON.parse(IO.popen([RbConfig.ruby, "-e", "require './bench/growth'; " \
                                                "Thistle::Growth.report(#{patches})"], chdir: ROOT, &:read).lines.last)
    end

    def get(path)
      answer = Rack::MockRequest.new(@app).get(path, "HTTP_HOST" => "127.0.0.1")
      answer.status == 200 ? answer : abort("#{path}: #{answer.status}")
    end

    def memory = File.read("/proc/self/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024

    def clock
      start = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      yield
      Process.clock_gettime(Process::CLOCK_MONOTONIC) - start
    end

    # Every tenth patch wants work; the rest were worked on, looked at, and are to be looked at again.
    def store(rows)
      Store::Patch.db.transaction do
        first = Store::Patch.max(:id) + 1
        rows.each_with_index { |row, n| row[:id] = first + n }
        quiet = rows.reject { |row| row[:state] == "standing" }.map { |row| row[:id] }
        Store::Bulk.insert(:patches, rows)
        Store::Bulk.insert(:observations,
                           rows.map { |row| { patch_id: row[:id], **SEEN, **row.slice(:seen_on, :plant_key) } })
        Store::Bulk.insert(:treatments, quiet.map { |id| { patch_id: id, done_on: day(id), **WORK } })
        Store::Bulk.insert(:checks, quiet.map { |id| { patch_id: id, checked_on: day(id) + 30, **LOOK } })
        visits = quiet.map { |id| { patch_id: id, due_on: Date.new(2026, 5, 1) + (id % 900), **VISIT } }
        Store::Bulk.insert(:tasks, visits)
      end
    end

    NOW = Time.now.utc
    SEEN = { settled: true, created_at: NOW }.freeze
    WORK = { method_key: "hand_pull", crew_size: 2, hours: 1.0, stems_done: 20, created_at: NOW }.freeze
    LOOK = { resprouts: 0, missed: 0, seedlings: 0, created_at: NOW }.freeze
    VISIT = { kind: "check", reason: "bench", source: "memory", since_on: Date.new(2025, 6, 1) }.freeze
    private_constant :NOW, :SEEN, :WORK, :LOOK, :VISIT

    def day(id) = Date.new(2025, 4, 1) + (id % 200)

    def patch(n)
      @random ||= Random.new(1)
      lon, lat = @property.longitude + @random.rand(-0.05..0.05), @property.latitude + @random.rand(-0.05..0.05)
      corners = [[0, 0], [3e-4, 0], [3e-4, 2e-4], [1e-4, 3e-4], [0, 0]]
      ring = corners.map { |x, y| [(lon + x).round(7), (lat + y).round(7)] }
      { property_id: @property.id, code: "X-#{n}", plant_key: PLANTS[n % PLANTS.size],
        state: (n % 10).zero? ? "standing" : "quiet",
        geometry: JSON.generate("type" => "Polygon", "coordinates" => [ring]),
        west: ring.map(&:first).min, east: ring.map(&:first).max,
        south: ring.map(&:last).min, north: ring.map(&:last).max, gross_m2: 700.0, shared_m2: 0.0,
        stems: 20, stem_size: "thumb", cover_class: 2,
        slope: "flat", schools: "{}", shape_from: Date.new(2025, 5, 1), water_m: 80.0 + (n % 300), natives_near: true,
        seen_on: Date.new(2025, 5, 1),
        lock_version: 0, created_at: NOW, updated_at: NOW }
    end
  end
end
