# frozen_string_literal: true

require "json"

module Thistle
  module Formats
    # GeoJSON (RFC 7946).
    module GeoJSON
      module_function

      def read(bytes)
        data = JSON.parse(bytes.dup.force_encoding("UTF-8").delete_prefix("\uFEFF"))
        rows = case data["type"]
               when "FeatureCollection" then data["features"]
               when "Feature" then [data]
               else [{ "geometry" => data }]
               end
        Reader.refuse("The FeatureCollection has no list of features.") unless rows.is_a?(Array)
        rows.map { |row| feature(row) }
      rescue JSON::ParserError
        Reader.refuse("The GeoJSON is cut off or damaged; nothing was taken from it.")
      end

      # A FeatureCollection as a string; features are hashes of geometry and properties.
      def write(features)
        JSON.generate(type: "FeatureCollection", features: features.map { |f| { type: "Feature", **f } })
      end

      def feature(row)
        properties = row.is_a?(Hash) && row["properties"].is_a?(Hash) ? row["properties"] : {}
        name = properties.values_at("name", "Name", "title", "code").compact.first
        Feature.new(geometry: row.is_a?(Hash) ? row["geometry"] : nil, name: name&.to_s, properties:)
      end
    end
  end
end
