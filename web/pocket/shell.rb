# frozen_string_literal: true

require "digest"
require "json"

module Thistle
  module Web
    module Pocket
      # What makes the application one that a phone installs and opens without signal: its manifest and its worker, at
      # addresses that do not change.
      module Shell
        # What every page needs, whatever was taken along.
        FILES = %w[/css/thistle.css /fonts/atkinson.woff2 /fonts/newsreader-italic.woff2 /img/thistle.svg
                   /img/icons.svg /img/marks.svg /vendor/htmx.min.js /vendor/idb.js /vendor/leaflet.js
                   /vendor/leaflet.css /vendor/leaflet-geoman.css /vendor/leaflet-geoman.min.js
                   /vendor/geographiclib-geodesic.min.js /js/keep.js /js/queue.js /js/checks.js /js/pin.js
                   /js/pocket.js /js/along.js
                   /js/record.js /js/bench.js /js/app.js /js/terms.js /js/ground.js /js/borders.js /js/measure.js
                   /js/draw.js /js/walk.js /js/work.js /js/look.js /js/mix.js /js/replant.js].freeze
        ICONS = { "192x192" => "/img/thistle-192.png", "512x512" => "/img/thistle-512.png" }.freeze
        PURPOSES = %w[any maskable].freeze
        SHORTCUTS = { "Record" => "/pocket/record", "Walk a patch" => "/survey/walk", "Identify" => "/identify" }.freeze
        PAPER, PURPLE = "#F8F4EA", "#6A2C7F"

        module_function

        # {path => [media type, text]}
        def files
          { "/manifest.webmanifest" => ["application/manifest+json", manifest],
            "/sw.js" => ["text/javascript", worker] }
        end

        def manifest
          icons = ICONS.flat_map do |sizes, src|
            PURPOSES.map { |purpose| { src: Statics.address(src), sizes:, type: "image/png", purpose: } }
          end
          JSON.generate(name: "Nimble Thistle", short_name: "Thistle", id: "/", start_url: "/", scope: "/",
                        description: "Invasive plants: identify, map, remove, come back.", display: "standalone",
                        background_color: PAPER, theme_color: PURPLE, icons:,
                        shortcuts: SHORTCUTS.map { |name, url| { name:, url: } })
        end

        # The worker knows its files by what they hold: another file is another worker.
        def worker
          shell = FILES.select { |path| File.file?("#{Statics::PUBLIC}#{path}") }.map { |path| Statics.address(path) }
          code = File.read("#{Statics::PUBLIC}/js/sw.js")
          version = Digest::SHA256.hexdigest(shell.join + code)[0, 12]
          "const VERSION = #{JSON.generate(version)};\nconst SHELL = #{JSON.generate(shell)};\n#{code}"
        end
      end
    end
  end
end
