# frozen_string_literal: true

require "json"

module Thistle
  module Formats
    # GeoJSON (RFC 7946).
    module GeoJSON
      NAME = %w[name Name title code].freeze

      module_function

      # [Feature] of the bytes (RFC 7946). Raises BadInput for what is no GeoJSON, or in another reference system.
      def read(bytes)
        Reader.check_pieces(bytes, "[{")
        data = JSON.parse(Text.utf8(bytes), max_nesting: 40)
        Reader.refuse("That is JSON, but not GeoJSON.") unless data.is_a?(Hash) && data["type"].is_a?(String)
        foreign_crs(data["crs"])
        rows = case data["type"]
               when "FeatureCollection" then data["features"]
               when "Feature" then [data]
               else [{ "geometry" => data }]
               end
        Reader.refuse("The FeatureCollection has no list of features.") unless rows.is_a?(Array)
        rows.flat_map { |row| features(row) }
      rescue JSON::ParserError
        Reader.refuse("The GeoJSON is cut off or damaged; nothing was taken from it.")
      end

      # A FeatureCollection (RFC 7946), a feature after the other into whatever takes `<<`: features are hashes of shape
      # (Core::Survey::Shape) and properties, in anything that answers each. Answers `out`.
      def write(features, out = +"")
        out << %({"type":"FeatureCollection","features":[)
        features.each_with_index do |f, n|
          row = { type: "Feature", id: f[:id], geometry: f[:shape].published, properties: f[:properties] }.compact
          out << (n.zero? ? "" : ",") << JSON.generate(row)
        end
        out << "]}"
      end

      # [Feature] of one member of a collection: one for each simple geometry in it.
      def features(row)
        properties = row.is_a?(Hash) && row["properties"].is_a?(Hash) ? row["properties"] : {}
        properties = { "id" => row["id"].to_s, **properties } if row.is_a?(Hash) && row["id"]
        name = properties.values_at(*NAME).compact.first
        Feature.each_of(row.is_a?(Hash) ? row["geometry"] : nil, name: name&.to_s, properties:)
      end

      # Old files may name a projection; only longitude and latitude can be taken.
      def foreign_crs(crs)
        name = crs.is_a?(Hash) ? crs.dig("properties", "name").to_s : ""
        return if name.empty? || name.match?(/CRS84|4326|4979/)

        Reader.refuse("Its coordinates are in #{name[0, 60]}, not in longitude and latitude: save it again as WGS84.")
      end
      private_class_method :foreign_crs
    end
  end
end
