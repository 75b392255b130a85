# frozen_string_literal: true

if ENV["COVERAGE"]
  require "simplecov"
  SimpleCov.start { add_filter "/test/" }
end

require "json"
require "minitest/autorun"
require "tmpdir"
require_relative "../thistle"
require_relative "support/writers"

Thistle::Writers.watch
Minitest.after_run do
  strays = Thistle::Writers.strays
  abort "Not drawn in ARCHITECTURE.md: #{strays.join(", ")}." if strays.any?
end

module Thistle
  # What tests share: the demo's climate and its fixed day.
  module Testing
    TODAY = Date.new(2026, 5, 12)
    CLIMATE = { "mean" => 13.0, "swing" => 12.8, "range" => 12.5, "wind" => 11, "wet_days" => 0.31,
                "rain" => [55, 55, 85, 105, 120, 105, 95, 90, 85, 85, 95, 75] }.freeze

    Store::Proposal.seconds = 0.25 # a day is solved dozens of times here
    # What a file holds is tested here, on a machine that may be busy with anything; how fast it is read, on the bench.
    Core::Apart.limits = { seconds: 600, patience: 600, altogether: 1200 }

    # What a page lacks is said by the sentence and the page's title, not by all of the page.
    module ShortOfPages
      LONG = 2000 # characters

      def assert_includes(all, one, message = nil)
        return super unless all.is_a?(String) && all.size > LONG

        all.include?(one) ? pass : flunk(message || "Missed #{one.inspect} in #{titled(all)}.")
      end

      def refute_includes(all, one, message = nil)
        return super unless all.is_a?(String) && all.size > LONG

        all.include?(one) ? flunk(message || "Found #{one.inspect} in #{titled(all)}.") : pass
      end

      def assert_match(pattern, text, message = nil)
        return super unless text.is_a?(String) && text.size > LONG

        text.match?(pattern) ? pass : flunk(message || "Missed #{pattern.inspect} in #{titled(text)}.")
      end

      private

      def titled(page) = page[%r{<title>(.*?)</title>}m, 1]&.strip&.inspect || "#{page[0, 60].inspect} …"
    end
    Minitest::Test.prepend(ShortOfPages)

    module_function

    def site(today: TODAY, texture: "loam", latitude: 38.0, climate: CLIMATE, seed: 7)
      @sites ||= {}
      @sites[[today, texture, latitude, climate, seed]] ||=
        Core::Season::Site.new(feed: StandIns::WeatherStation.new(seed:, climate:), latitude:, texture:, today:)
    end

    def plant(key) = Core::Knowledge.shipped.plant(key)

    # One database and demo land for the whole run; `fresh: true` makes it again what it was.
    def demo(fresh: false)
      @folder ||= Dir.mktmpdir("thistle").tap { |dir| Minitest.after_run { FileUtils.rm_rf(dir) } }
      @app ||= Web::Boot.call(@folder, hosts: ["example.org"])
      return @app unless fresh || Store::Property.empty?

      @land ? @land.restore : @land = Snapshot.new(@folder)
      @app
    end

    def patch(code) = Store::Patch.first(code:)

    # A planting plan of a patch, as the mix bench makes one.
    def planting_plan(code, **asked)
      patch = patch(code)
      asked = { "kind" => "plugs", "kinds" => "9", "area" => "120" }.merge(asked.transform_keys(&:to_s))
      desk = Web::Replant::Desk.new(asked, patch, patch.property, TODAY)
      mix = Web::Replant::MixDesk.new(asked, desk, patch.property.measures, TODAY)
      Web::Replant::PlanDesk.new(mix, "", TODAY).make
    end

    # A zip's bytes.
    def zip(files)
      Dir.mktmpdir do |folder|
        Formats::Archive.pack(File.join(folder, "a.zip"), files)
        File.binread(File.join(folder, "a.zip"))
      end
    end

    # The demo land as it was just loaded: quicker to put back than to load. The processes of one run share it: the
    # first that needs it loads it, the others wait.
    class Snapshot
      def initialize(folder)
        kept = ENV.fetch("THISTLE_LAND") { File.join(folder, "kept") }
        @copy, @kept, @layers = File.join(kept, "land.db"), File.join(kept, "layers"), File.join(folder, "layers")
        FileUtils.mkdir_p(kept)
        File.open("#{kept}/lock", "w") do |lock|
          lock.flock(File::LOCK_EX)
          File.exist?(@copy) ? restore : keep
        end
      end

      def keep
        Demo::Land.new.load
        FileUtils.cp_r(@layers, @kept)
        db.run("VACUUM INTO #{db.literal(@copy)}")
      end

      # Rows of every plain table; what lies in R*Trees follows by its triggers. Ids come again, so what was kept by
      # them goes.
      def restore
        db.synchronize do |raw|
          raw.execute("ATTACH DATABASE ? AS land", [@copy])
          raw.execute("PRAGMA foreign_keys=OFF")
          raw.transaction(:immediate) do
            tables(raw).each do |table|
              raw.execute_batch("DELETE FROM main.#{table}; INSERT INTO main.#{table} SELECT * FROM land.#{table}")
            end
          end
          raw.execute("PRAGMA foreign_keys=ON")
          raw.execute("DETACH DATABASE land")
        end
        FileUtils.rm_rf(@layers)
        FileUtils.cp_r(@kept, @layers)
        Store::Property::FACTS.clear
        Store::Property.sites.drop { |(weather, *)| weather.first.is_a?(Integer) }
      end

      private

      def db = Sequel::Model.db

      def tables(raw)
        plain = "SELECT name FROM land.sqlite_master WHERE type = 'table' AND sql NOT LIKE 'CREATE VIRTUAL%' " \
                "AND name NOT LIKE '%\\_extents\\_%' ESCAPE '\\' AND name NOT LIKE 'plant\\_names%' ESCAPE '\\'"
        raw.execute(plain).flatten - %w[schema_info]
      end
    end
  end
end
