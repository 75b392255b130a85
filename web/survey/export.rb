# frozen_string_literal: true

require "tmpdir"

module Thistle
  module Web
    module Survey
      # A property's patches as a file for someone else's program.
      class Export
        KINDS = { "geojson" => ["GeoJSON", "application/geo+json"],
                  "kml" => ["KML", "application/vnd.google-earth.kml+xml"],
                  "kmz" => ["KMZ", "application/vnd.google-earth.kmz"], "gpx" => ["GPX", "application/gpx+xml"],
                  "csv" => ["CSV, with well-known text", "text/csv"],
                  "zip" => ["Darwin Core archive, absences too", "application/zip"],
                  "gpkg" => ["GeoPackage, all records", "application/geopackage+sqlite3"] }.freeze

        # Patches alone: for whoever takes no notes and no names along.
        PLAIN = %w[geojson kml kmz gpx csv].freeze

        # What goes out of a property, as far as whoever asks may take it along.
        def self.kinds(property) = property.veiled ? KINDS.slice(*PLAIN) : KINDS

        def initialize(property, kind)
          @property, @kind = property, kind
        end

        PAGE = 500 # patches in memory at a time

        def media = KINDS.fetch(@kind).last
        def filename = "#{@property.name.downcase.gsub(/[^a-z0-9]+/, "-")}.#{@kind}"

        FILES = %w[kmz zip gpkg].freeze # made as a file first

        # Makes what goes out as a file, so that a full disk is said before anything is sent. The file has no name any
        # more once it is there: it is gone when nobody reads it.
        def ready
          return self unless FILES.include?(@kind)

          Dir.mktmpdir("thistle") do |folder|
            path = File.join(folder, filename)
            make(path)
            @file = File.new(path, "rb")
          end
          self
        end

        def close = @file&.close

        # The file, piece by piece, as a Rack body: however many patches, no more than some hundred are in memory, and
        # who goes away stops it.
        def each(&)
          out = Outlet.new(&)
          case @kind
          when "geojson" then Formats::GeoJSON.write(features, out)
          when "kml" then Formats::KML.write(features, out, title: @property.name)
          when "gpx" then Formats::GPX.write(features, out, title: @property.name)
          when "csv" then Formats::Table.write(features, out, keys: Core::Survey::Columns::WRITTEN.keys)
          else packed(&)
          end
          out.flush
        end

        def bytes = enum_for(:each).inject(+"".b) { |all, piece| all << piece.b }

        private

        # What a writer says, handed on in pieces that are worth sending.
        class Outlet
          LEAST = 32 * 1024

          def initialize(&take)
            @take, @kept = take, +""
          end

          def <<(text)
            @kept << text
            flush if @kept.bytesize >= LEAST
            self
          end

          def flush
            @take.call(@kept) unless @kept.empty?
            @kept = +""
          end
        end
        private_constant :Outlet

        def packed
          ready unless @file
          while (piece = @file.read(256 * 1024))
            yield piece
          end
        end

        def make(path)
          case @kind
          when "kmz" then Formats::Archive.pack(path, "doc.kml" => ->(out) { kml(out) })
          when "zip" then archive(path)
          when "gpkg" then Formats::Geopackage.write(Package.new(@property).layers, path)
          end
        end

        def archive(path)
          all = Events.new(@property)
          Formats::DarwinCore.archive(path, title: @property.name, events: all.events, occurrences: all.occurrences,
                                            measurements: all.measurements)
        end

        def kml(out) = Formats::KML.write(features, out, title: @property.name)

        # Patches in the order of their ids, a page at a time.
        def patches
          Enumerator.new do |all|
            last = 0
            until (page = @property.live_patches.unordered.where(Sequel[:id] > last).order(:id).limit(PAGE).all).empty?
              page.each { |patch| all << patch }
              last = page.last.id
            end
          end
        end

        def told(patch) = Core::Survey::Columns.of(patch).except(*(:note if @property.veiled))

        def features
          patches.lazy.map do |patch|
            { name: patch.code, shape: patch.shape, properties: told(patch).compact }
          end
        end
      end
    end
  end
end
