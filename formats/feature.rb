# frozen_string_literal: true

module Thistle
  module Formats
    # One thing read from a file: a GeoJSON geometry, a name, whatever else the file said of it, and what was
    # done to it on the way in (notes). kind: a key of Core::Survey::RecordColumns for past work and the like, which
    # have no geometry; nil for what stands on the ground.
    Feature = Core::Value.define(:geometry, :name, :properties, :notes, :kind) do
      # The same as one feature for each simple kind, where a geometry is a collection or has heights.
      def self.each_of(geometry, **facts)
        return [new(geometry:, **facts)] unless geometry.is_a?(Hash)

        parts = geometry["type"] == "GeometryCollection" ? Array(geometry["geometries"]) : [geometry]
        notes = parts.size > 1 ? ["one of #{parts.size} shapes of a mixed geometry"] : []
        parts.flat_map do |part|
          nested = part.is_a?(Hash) && part["type"] == "GeometryCollection"
          nested ? each_of(part, **facts) : [plain(part, notes, facts)]
        end
      end

      def self.plain(geometry, notes, facts)
        raised = geometry.is_a?(Hash) && raised?(geometry["coordinates"])
        notes += ["heights were left out"] if raised
        new(geometry: raised ? geometry.merge("coordinates" => level(geometry["coordinates"])) : geometry, notes:,
            **facts)
      end

      # Does any position of nested coordinates carry a height?
      def self.raised?(list)
        return false unless list.is_a?(Array) && list.any?

        list.first.is_a?(Array) ? list.any? { |item| raised?(item) } : list.size > 2 && list.first.is_a?(Numeric)
      end

      # Nested coordinates without their heights.
      def self.level(list)
        list.is_a?(Array) && list.first.is_a?(Array) ? list.map { |item| level(item) } : Array(list)[0, 2]
      end

      private_class_method :plain, :raised?
    end
  end
end
