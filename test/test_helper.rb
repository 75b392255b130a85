# frozen_string_literal: true

if ENV["COVERAGE"]
  require "simplecov"
  SimpleCov.start { add_filter "/test/" }
end

require "json"
require "minitest/autorun"
require "tmpdir"
require_relative "../thistle"

module Thistle
  # What tests share: the demo's climate and its fixed day.
  module Testing
    TODAY = Date.new(2026, 5, 12)
    CLIMATE = { "mean" => 13.0, "swing" => 12.8, "range" => 12.5, "wind" => 11, "wet_days" => 0.31,
                "rain" => [55, 55, 85, 105, 120, 105, 95, 90, 85, 85, 95, 75] }.freeze

    module_function

    def site(today: TODAY, texture: "loam", latitude: 38.0, climate: CLIMATE, seed: 7)
      @sites ||= {}
      @sites[[today, texture, latitude, climate, seed]] ||=
        Core::Season::Site.new(feed: StandIns::WeatherStation.new(seed:, climate:), latitude:, texture:, today:)
    end

    def plant(key) = Core::Knowledge.shipped.plant(key)

    # One database and demo land for the whole run; `fresh: true` loads it again.
    def demo(fresh: false)
      @folder ||= Dir.mktmpdir("thistle").tap { |dir| Minitest.after_run { FileUtils.rm_rf(dir) } }
      @app ||= Web::Boot.call(@folder)
      if fresh || Store::Property.empty?
        Store::Property.dataset.delete
        Demo::Land.new.load
      end
      @app
    end

    def patch(code) = Store::Patch.first(code:)
  end
end
