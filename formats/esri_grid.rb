# frozen_string_literal: true

require "rgeo"
require "strscan"

module Thistle
  module Formats
    # An Esri ASCII grid of heights in metres, cells square. Raises BadInput that says what is wrong and where.
    module EsriGrid
      HEAD = %w[ncols nrows cellsize xllcorner yllcorner xllcenter yllcenter nodata_value].freeze
      MAX_BYTES = 48 * 1024 * 1024

      module_function

      # A Core::Survey::Elevation. crs: an EPSG code when the corner is not in degrees. Raises BadInput
      # for what is no grid, is too large, or lies nowhere on the globe.
      def read(bytes, crs: nil)
        refuse "is larger than #{MAX_BYTES / 1024 / 1024} MB" if bytes.bytesize > MAX_BYTES
        refuse "is said to be in #{crs.inspect[0, 60]}: give an EPSG code" if crs && !WorldFile::CODE.match?(crs)
        words = StringScanner.new(Text.utf8(bytes))
        head = head(words)
        columns, rows, cell = head["ncols"].to_i, head["nrows"].to_i, head["cellsize"]
        check(head, columns, rows)
        west, south = corner(head, "x", cell), corner(head, "y", cell)
        check_place(west, south, columns * cell, rows * cell, crs)
        Core::Survey::Elevation.new(columns:, rows:, west:, south:, cell:, crs:,
                                    heights: heights(words, columns * rows, head["nodata_value"] || -9999.0))
      rescue RGeo::Error::RGeoError
        refuse "is said to be in #{crs}, which is not a projection known here"
      end

      def head(words)
        found = {}
        while words.scan(/\G\s*([a-z_]+)\s+(\S+)/i)
          key = words[1].downcase
          refuse "has a line “#{key}” in its head that is not part of the format" unless HEAD.include?(key)
          found[key] = Core::Decimal.read(words[2], most: Float::MAX) or refuse "has no number after #{key}"
        end
        found
      end

      def check(head, columns, rows)
        lost = %w[ncols nrows cellsize].reject { |key| head[key]&.positive? }
        refuse "does not say its #{lost.join(", ")}: it is not an Esri ASCII grid" if lost.any?
        return unless columns * rows > Core::Survey::Elevation::MAX_CELLS

        refuse "has more than #{Core::Survey::Elevation::MAX_CELLS / 1_000_000} million cells"
      end

      def corner(head, axis, cell)
        return head["#{axis}llcorner"] if head["#{axis}llcorner"]

        (head["#{axis}llcenter"] || refuse("does not say where its corner is")) - (cell / 2)
      end

      def check_place(west, south, wide, high, crs)
        return if crs || ([west, west + wide].all? { |lon| lon.between?(-180, 181) } &&
                          [south, south + high].all? { |lat| lat.between?(-90, 90) })

        refuse "is not in degrees: say which projection (an EPSG code such as EPSG:32615)"
      end

      def heights(words, wanted, gap)
        found = Array.new(wanted)
        (0...wanted).each do |n|
          text = words.scan(/\G\s*\S+/) or refuse "breaks off after #{n} of #{wanted} heights"
          value = Float(text, exception: false) || Core::Decimal.read(text, comma: :decimal) ||
                  refuse("has “#{text.strip[0, 20]}” where a height should be, cell #{n + 1}")
          found[n] = value unless value == gap || !value.finite?
        end
        refuse "has more heights than its head says" if words.scan(/\G\s*\S/)
        found
      end

      def refuse(what) = raise(Core::BadInput.new("The grid #{what}.", field: :file))
      private_class_method :head, :check, :corner, :check_place, :heights, :refuse
    end
  end
end
