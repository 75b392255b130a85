# frozen_string_literal: true

# Frames a second in headless Chromium while an area is being drawn among 2 000 patches. Run by `rake bench`.
ENV["MT_NO_AUTORUN"] = "1"
require "bundler/setup"
$LOAD_PATH.unshift File.expand_path("../test", __dir__)
require "support/browser"

Minitest.singleton_class.define_method(:run) { |*| true } # nothing to test here

module Thistle
  class DrawingBench
    include Capybara::DSL
    include Browser

    PATCHES = 2_000
    SECONDS = 4

    def run
      Testing.demo(fresh: true)
      fill
      resize "desk"
      visit "/survey"
      raise "the map did not show them" unless page.has_css?("#map[data-ready='#{PATCHES + 12}']", wait: 60)

      find(".leaflet-pm-icon-polygon").click
      puts format("%-52s %8.1f frames a second (asked: 30)", "drawing among #{PATCHES} patches", frames { draw })
    end

    private

    def fill
      property = Store::Property.first
      random, now = Random.new(5), Time.now.utc
      rows = Array.new(PATCHES) do |n|
        lon, lat = property.longitude + random.rand(-0.005..0.005), property.latitude + random.rand(-0.0035..0.0035)
        corners = [[0, 0], [2e-4, 0], [2.4e-4, 1e-4], [1e-4, 2e-4], [0, 1e-4], [0, 0]]
        ring = corners.map { |x, y| [(lon + x).round(7), (lat + y).round(7)] }
        shape = Core::Survey::Shape.new({ "type" => "Polygon", "coordinates" => [ring] }, [])
        { property_id: property.id, code: "X-#{n}", state: Core::Recheck::PatchLife::STATES[n % 6], slope: "flat",
          lock_version: 0,
          shared_m2: 0.0, seen_on: Testing::TODAY, **Store::Patch.measured(shape).compact, created_at: now,
          updated_at: now }
      end
      Store::Bulk.insert(:patches, rows)
    end

    # Frames that the page drew a second while the block worked.
    def frames
      execute_script("window.frames_ = 0; window.began_ = performance.now(); " \
                     "(function tick() { window.frames_ += 1; requestAnimationFrame(tick); })()")
      yield
      evaluate_script("window.frames_ * 1000 / (performance.now() - window.began_)")
    end

    # The pointer goes round and sets a corner now and then, in the page itself so that the driver's pace does not
    # count.
    def draw
      evaluate_async_script(<<~JS)
        const done = arguments[0], map = document.getElementById('map'), box = map.getBoundingClientRect();
        const began = performance.now();
        let step = 0;
        (function move() {
          const turn = step / 40, x = box.left + box.width / 2 + 190 * Math.cos(turn);
          const y = box.top + box.height / 2 + 190 * Math.sin(turn);
          const at = document.elementFromPoint(x, y), facts = { clientX: x, clientY: y, bubbles: true };
          at.dispatchEvent(new MouseEvent('mousemove', facts));
          const kinds = step % 40 === 0 ? ['mousedown', 'mouseup', 'click'] : [];
          kinds.forEach((kind) => at.dispatchEvent(new MouseEvent(kind, facts)));
          step += 1;
          if (performance.now() - began < #{SECONDS * 1000}) requestAnimationFrame(move); else done(step);
        })();
      JS
    end
  end
end

Thistle::DrawingBench.new.run
