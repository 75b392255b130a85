# frozen_string_literal: true

# `rake bench costly`: the dearest requests of a running server, each alone and four at once, while a light page is
# asked for beside them; with numbers beyond all measure and lines that cross themselves. Figures beside what is asked.
require "json"
require_relative "../thistle"
require_relative "served"

module Thistle
  # A server of its own, and what it is asked for.
  class CostlyBench
    include Served

    AT_ONCE = 4
    LIGHT = "/find?q=ivy"
    GROWN, LONGEST = 600, 1.0 # MB of a process, s of a light page beside
    PAGES = %w[/recheck/learned /survey/searches /survey/totals /survey/site-map.svg /decide/first /decide/plan
               /replant/first?patch=1 /replant/mix /replant?area=1e12 /mix/card.pdf /mix/records.pdf
               /recheck?all=1 /season
               /mix/other-end?product_poured=1e308&carrier_poured=1e308&have=1e308&from=1e308&down_to=1e-308
               /decide/rules / /work].freeze
    EXPORTS = %w[geojson kml kmz gpx csv zip gpkg].freeze

    def run
      serve do
        @lights, @codes, @grown = [], Hash.new(0), 0
        asked.each { |name, request| try(name, request) }
      end
      tell
    end

    private

    # {name => a request, anew each time}
    def asked
      outlooks = get("/recheck?all=1").body.scan(%r{/recheck/patches/\d+}).uniq.first(3).map do |path|
        "#{path}/outlook"
      end
      pages = [*PAGES, *outlooks, *EXPORTS.map { |kind| "/survey/export/#{kind}" }]
      { **pages.to_h { |path| [path, -> { get(path) }] }, **shapes }
    end

    def shapes
      random = Random.new(1)
      scattered = ->(count) { Array.new(count) { [-91.4 + random.rand(0.02), 38 + random.rand(0.02)] } }
      { "a line of 4 000 corners" => { type: "LineString", coordinates: scattered[4000] },
        "an outline of 4 000 corners" => { type: "Polygon", coordinates: [scattered[4000].then { |p| [*p, p[0]] }] },
        "a fan of 500 spikes" => { type: "LineString", coordinates: fan(500) } }
        .transform_values { |shape| -> { post("/survey/measure", geometry: JSON.generate(shape), width: "10") } }
    end

    def fan(spikes)
      Array.new(2 * spikes) do |n|
        reach = n.even? ? 0 : 0.01
        [-91.4 + (reach * Math.cos(Math::PI * n / spikes)), 38 + (reach * Math.sin(Math::PI * n / spikes))]
      end
    end

    def try(name, request)
      alone = timed { request.call }
      at_once = timed { beside { Array.new(AT_ONCE) { Thread.new { timed { request.call } } }.each(&:join) } }
      @grown = [@grown, weight = largest].max
      puts format("  %-60s %6.2f s alone, %6.2f s %d at once, %4.0f MB then", name[0, 60], alone, at_once, AT_ONCE,
                  weight)
    end

    # Light pages are asked for until the block ends.
    def beside
      done = false
      light = Thread.new do
        until done
          @lights << timed { get(LIGHT) }
          sleep 0.05
        end
      end
      yield
      done = true
      light.join
    end

    def timed
      began = now
      yield
      now - began
    end

    def get(path) = note(fetch(Net::HTTP::Get.new(path, "Cookie" => cookie)))

    def post(path, **fields)
      request = Net::HTTP::Post.new(path, "Cookie" => cookie)
      request.set_form_data(authenticity_token: @token, **fields)
      note(fetch(request))
    end

    def note(answer) = answer.tap { @codes[answer.code.to_i] += 1 }

    def fetch(request)
      Net::HTTP.start("127.0.0.1", @port, read_timeout: 120) { |http| http.request(request) }
    end

    def cookie
      @cookie ||= begin
        page = fetch(Net::HTTP::Get.new("/records"))
        @token = page.body[/name="authenticity_token" value="([^"]+)"/, 1]
        page["set-cookie"][/thistle=[^;]+/]
      end
    end

    def tell
      lights = @lights.sort
      puts "answers #{@codes.sort.to_h}"
      say "faults of ours", @codes.sum { |code, number| code >= 500 && code != 503 ? number : 0 }, "", 1
      say "largest process of the server", @grown, "MB", GROWN
      say "light page beside, median of #{lights.size}", lights[lights.size / 2], "s", LONGEST
      say "light page beside, longest", lights.last, "s", LONGEST
    end
  end
end

Thistle::CostlyBench.new.run
