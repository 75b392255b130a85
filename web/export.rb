# frozen_string_literal: true

module Thistle
  module Web
    # A property's patches as a file for someone else's program.
    class Export
      KINDS = { "geojson" => ["GeoJSON", "application/geo+json"], "kml" => ["KML", "application/vnd.google-earth.kml+xml"],
                "kmz" => ["KMZ", "application/vnd.google-earth.kmz"], "gpx" => ["GPX", "application/gpx+xml"],
                "csv" => ["CSV, with well-known text", "text/csv"],
                "zip" => ["Darwin Core archive, absences too", "application/zip"], "gpkg" => ["GeoPackage", "application/geopackage+sqlite3"] }.freeze

      def initialize(property, kind)
        @property, @kind = property, kind
      end

      def media = KINDS.fetch(@kind).last
      def filename = "#{@property.name.downcase.gsub(/[^a-z0-9]+/, "-")}.#{@kind}"

      def bytes
        case @kind
        when "geojson" then Formats::GeoJSON.write(features)
        when "kml" then Formats::KML.write(features, title: @property.name)
        when "kmz" then Formats::Archive.pack("doc.kml" => Formats::KML.write(features, title: @property.name))
        when "gpx" then Formats::GPX.write(features, title: @property.name)
        when "csv" then Formats::Table.write(features)
        when "zip" then Formats::DarwinCore.archive(occurrences, title: @property.name)
        when "gpkg" then Formats::Geopackage.write("patches" => features, "zones" => zones)
        end
      end

      private

      def patches = @patches ||= @property.live_patches.all

      def features
        patches.map { |patch| { name: patch.code, shape: patch.shape, properties: Core::Survey::Columns.of(patch).compact } }
      end

      def zones
        @property.zones.map { |zone| { shape: zone.shape, properties: { kind: zone.kind, name: zone.name, keep_m: zone.distance_kept.to_f } } }
      end

      def occurrences
        patches.map { |patch| present(patch) } + @property.searches.flat_map { |search| search.absences.map { |key| absent(search, key) } }
      end

      def present(patch)
        named(patch.plant).merge(
          "occurrenceID" => "urn:thistle:patch:#{patch.code}", "eventDate" => patch.seen_on, "occurrenceStatus" => "present",
          "identificationVerificationStatus" => patch.settled? ? "verified" : "unverified", **placed(patch.shape), "organismQuantity" => patch.stems,
          "organismQuantityType" => patch.stems && "individuals", "dynamicProperties" => JSON.generate(Core::Survey::Columns.of(patch).compact),
          "occurrenceRemarks" => patch.note
        )
      end

      def absent(search, key)
        plant = Core::Knowledge.shipped.plant(key)
        named(plant).merge(
          "dynamicProperties" => JSON.generate(plant: plant.name, seen_on: search.searched_on),
          "occurrenceID" => "urn:thistle:search:#{search.id}:#{key}", "eventDate" => search.searched_on, "occurrenceStatus" => "absent",
          "recordedBy" => search.people, **placed(search.seen_ground),
          "samplingProtocol" => search.sight_m ? "walk, #{search.sight_m.round} m in sight" : "area searched",
          "samplingEffort" => [search.length_m && "#{search.length_m.round} m", "#{search.area_m2.round} m2 searched"].compact.join(", ")
        )
      end

      def named(plant)
        { "basisOfRecord" => "HumanObservation", "scientificName" => plant&.scientific, "family" => plant&.family, "vernacularName" => plant&.name }
      end

      def placed(shape)
        lon, lat = shape.centre
        { "decimalLatitude" => lat.round(7), "decimalLongitude" => lon.round(7), "geodeticDatum" => "WGS84", "footprintSRS" => "EPSG:4326",
          "footprintWKT" => Formats::Table.wkt(shape.published) }
      end
    end
  end
end
