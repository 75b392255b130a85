# frozen_string_literal: true

module Thistle
  module Formats
    # One thing read from a file: a GeoJSON geometry, a name, and whatever else the file said of it.
    Feature = Core::Value.define(:geometry, :name, :properties) do
      # Does any text of the feature name this plant?
      def plant_named?(plant)
        text = [name, *properties&.values].compact.join(" ").downcase.tr("_", " ")
        [plant.name, plant.scientific, plant.key.tr("_", " ")].any? { |known| text.include?(known.downcase) }
      end
    end
  end
end
