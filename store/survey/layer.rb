# frozen_string_literal: true

require "fileutils"
require "securerandom"

module Thistle
  module Store
    # Model: a base layer from the user's own files, kept as a file beside the database: lines and areas (vector), an
    # aerial picture, raster tiles (MBTiles), an elevation grid.
    class Layer < Sequel::Model(:layers)
      many_to_one :property, class: "Thistle::Store::Property"

      KINDS = { "vector" => "lines and areas", "picture" => "aerial picture", "tiles" => "map tiles",
                "elevation" => "elevation grid" }.freeze

      include Live

      # Keeps the bytes; facts are what the map needs to lay it out.
      def self.keep(property, kind:, name:, bytes:, facts:)
        file = "#{SecureRandom.hex(8)}.#{kind}"
        FileUtils.mkdir_p(folder)
        path = File.join(folder, file)
        File.binwrite(path, bytes)
        layer = create(property_id: property.id, kind:, name:, file:, facts: JSON.generate(facts))
        Surroundings.settle_soon(property) if kind == "elevation"
        layer
      rescue StandardError
        FileUtils.rm_f(path) if path && layer.nil? # what is not on record leaves no file
        raise
      end

      def self.folder = File.join(File.dirname(Database.path), "layers")

      class << self
        # Answers an Elevation from a grid's bytes and its projection; set where the application is put together.
        attr_accessor :grid_reader
      end

      # The property's elevation grid, the newest that is on the map; nil without one.
      def self.elevation(property) = heights(property)&.grid

      # The layer of that grid; one whose file is missing is passed over.
      def self.heights(property)
        live.where(property_id: property.id, kind: "elevation").reverse(:id).all.find(&:there?)
      end

      GRIDS = Core::Kept.new(4)

      # An elevation layer's grid, read once.
      def grid = GRIDS.fetch(file) { self.class.grid_reader.call(bytes, details["crs"]) }

      # Is its file still beside the data?
      def there? = File.file?(path)

      def path = File.join(self.class.folder, file)

      def bytes
        File.binread(path)
      rescue Errno::ENOENT
        raise Core::BadInput.new("The file of the layer “#{name}” is missing from the data folder. " \
                                 "Take the layer off, or restore a copy.",
                                 field: :layer)
      end

      def details = JSON.parse(facts)

      # Off the map, or back on it; an elevation grid tells patches their slope.
      def take_off = change(deleted_at: Time.now.utc)
      def bring_back = change(deleted_at: nil)

      private

      def change(**columns)
        update(**columns)
        Surroundings.settle_soon(property) if kind == "elevation"
      end
    end
  end
end
