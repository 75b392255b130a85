# frozen_string_literal: true

require "rgeo/geo_json"
require "rgeo/proj4"
require "rgeo/shapefile"
require "tmpdir"

module Thistle
  module Formats
    # Zipped shapefiles: each .shp with its .shx, and its .dbf, .prj and .cpg where they are there. Places are brought
    # to WGS 84 by what the .prj says; without one, degrees are taken as they stand, and metres are refused.
    module Shapefile
      PARTS = %w[shp shx dbf prj cpg].freeze
      WGS84 = RGeo::CoordSys::Proj4.new("EPSG:4326")

      module_function

      # Do the names of a zip hold one?
      def among?(names) = names.any? { |name| name.downcase.end_with?(".shp") }

      # [Feature] of {name => bytes}. Raises BadInput for one that cannot be read, or lies nobody knows where.
      def read(files)
        files.keys.select { |name| name.downcase.end_with?(".shp") }.sort.flat_map { |name| layer(files, name[0..-5]) }
      rescue Core::BadInput
        raise
      rescue StandardError, NoMemoryError # the reader trusts lengths that a spoilt file says
        Reader.refuse("The shapefile is cut off or damaged; nothing was taken from it.")
      end

      def layer(files, base)
        parts = PARTS.to_h { |part| [part, files.find { |name, _| name.downcase == "#{base}.#{part}".downcase }&.last] }
        unless parts["shx"]
          Reader.refuse("The .shx of #{File.basename(base)} is missing from the zip. Zip all its parts together.")
        end
        Dir.mktmpdir do |folder|
          parts.compact.each { |part, bytes| File.binwrite("#{folder}/layer.#{part}", bytes) }
          shapes("#{folder}/layer.shp", projection(parts["prj"]))
        end
      end

      # What a .prj says; nil for degrees of WGS 84, and where nothing is said.
      def projection(text)
        return if text.nil? || text.strip.empty?

        found = RGeo::CoordSys::Proj4.new(text.scrub.strip)
        found unless found.geographic? && text.match?(/WGS.{0,5}84/i)
      rescue RGeo::Error::InvalidProjection
        Reader.refuse("The .prj says a map projection that is not known here. Save it anew in WGS 84.")
      end

      def shapes(path, from)
        RGeo::Shapefile::Reader.open(path, factory: RGeo::Cartesian.preferred_factory, allow_unsafe: true) do |file|
          check_place(file) unless from
          file.filter_map { |record| feature(record, from) }.flatten
        end
      end

      # Without a .prj, what lies outside the degrees of the earth is metres of some grid.
      def check_place(file)
        corners = [file.xmin, file.xmax, file.ymin, file.ymax]
        return if corners.first(2).all? { |x| x.between?(-180, 360) } && corners.last(2).all? do |y|
          y.between?(-90, 90)
        end

        Reader.refuse("The shapefile has no .prj, and its numbers are no degrees: nobody knows where it lies. Zip " \
                      "its .prj with it.")
      end

      def feature(record, from)
        geometry = record.geometry or return
        told = RGeo::GeoJSON.encode(geometry)
        told = moved(told, from) if from
        properties = record.attributes.to_h do |name, value|
          [name, Inert.read(value.is_a?(Date) ? value.iso8601 : value.to_s.strip)]
        end
        Feature.each_of(single(told), name: nil, properties: properties.reject { |_, text| text.empty? })
      end

      # A collection of one is that one.
      def single(geometry)
        kind, parts = geometry.values_at("type", "coordinates")
        return geometry unless kind.start_with?("Multi") && parts.size == 1

        { "type" => kind.delete_prefix("Multi"), "coordinates" => parts.first }
      end

      def moved(geometry, from)
        geometry.merge("coordinates" => walk(geometry["coordinates"]) { |x, y| place(from, x, y) })
      end

      def walk(list, &)
        list.first.is_a?(Numeric) ? yield(*list.first(2)) : list.map { |item| walk(item, &) }
      end

      def place(from, across, up)
        lon, lat, = RGeo::CoordSys::Proj4.transform_coords(from, WGS84, across, up)
        [lon.round(9), lat.round(9)]
      end

      private_class_method :layer, :projection, :shapes, :check_place, :feature, :single, :moved, :walk, :place
    end
  end
end
