# frozen_string_literal: true

require "csv"
require "rgeo"
require "rgeo/geo_json"

module Thistle
  module Formats
    # A table as CSV (RFC 4180) in any of the usual separators and encodings, decimal commas too, with the place in
    # columns of latitude and longitude or as well-known text (OGC).
    module Table
      SEPARATORS = [",", ";", "\t", "|"].freeze
      LATITUDE = /\A(decimal_?)?lat(itude)?(_?dd|_?wgs84)?\z|\Ay\z|\Anorthing\z/i
      LONGITUDE = /\A(decimal_?)?(lon|long|lng)(gitude|itude)?(_?dd|_?wgs84)?\z|\Ax\z|\Aeasting\z/i
      WKT = /\A(wkt|geom(etry)?|the_geom|geom_?wkt|shape_?wkt|footprint_?wkt)\z/i
      PARSER = RGeo::Geos.factory(has_z_coordinate: true, wkt_parser: { support_ewkt: true, support_wkt12: true })
      WRITER = RGeo::WKRep::WKTGenerator.new

      module_function

      # [Feature], one a row, of a table with latitude and longitude or well-known text. Raises BadInput when it is
      # none.
      def read(bytes)
        text = Text.utf8(bytes)
        mark = separator(text.each_line.first.to_s)
        Reader.check_pieces(text, "\n#{mark}")
        rows = CSV.parse(text, headers: true, col_sep: mark, liberal_parsing: false, skip_blanks: true)
        headers = rows.headers.compact.map(&:strip)
        place = columns(headers)
        unless place
          Reader.refuse("The table has no columns of latitude and longitude, and none of well-known text. It has: " \
                        "#{headers.first(8).join(", ")}.")
        end
        rows.flat_map { |row| features(row, place) }
      rescue CSV::MalformedCSVError => e
        Reader.refuse("The table breaks off in line #{e.line_number}: a quote that does not close, or one too many.")
      end

      # Is it a table at all: a first line with a separator and a second with as many?
      def table?(head)
        first, second = head.lines.first(2)
        return false unless first&.valid_encoding? && !head.include?("\u0000")

        SEPARATORS.any? { |mark| first.include?(mark) && (second.nil? || second.include?(mark)) }
      end

      # features: hashes of shape and properties, of which `keys` become columns; every shape as well-known text, its
      # middle as latitude and longitude. Answers `out`.
      def write(features, out = +"", keys:)
        rows = features.lazy.map do |f|
          lon, lat = f[:shape].centre
          [*keys.map { |key| f[:properties][key] }, lat.round(7), lon.round(7), wkt(f[:shape].published)]
        end
        CsvFile.write([*keys, "latitude", "longitude", "wkt"], rows, out)
      end

      def wkt(geometry) = WRITER.generate(RGeo::GeoJSON.decode(geometry, geo_factory: Core::Survey::Meridian::FLAT))

      # A point of [longitude, latitude] as texts; what is no number stays as it is, for the shape to complain of.
      def point(texts)
        { "type" => "Point", "coordinates" => texts.map { |text| Core::Decimal.read(text, comma: :decimal) || text } }
      end

      # GeoJSON geometry of well-known text; nil when it is not. Heights only where the text says that it has them.
      def geometry(text)
        found = RGeo::GeoJSON.encode(PARSER.parse_wkt(text.to_s))
        return found if text.match?(/[A-Z]\s*ZM?\s*\(/i) || found.key?("geometries")

        found.merge("coordinates" => Feature.level(found["coordinates"]))
      rescue RGeo::Error::RGeoError
        nil
      end

      def separator(line) = SEPARATORS.max_by { |mark| line.count(mark) }

      def columns(headers)
        wkt = headers.find { |h| h.match?(WKT) }
        lat, lon = headers.find { |h| h.match?(LATITUDE) }, headers.find { |h| h.match?(LONGITUDE) }
        { wkt:, lat:, lon: } if wkt || (lat && lon)
      end

      def features(row, place)
        given = row.to_h.select { |key, value| key && value.to_s.strip != "" }
        properties = given.to_h { |key, value| [key.strip, Inert.read(value)] }
        wkt = place[:wkt] && properties[place[:wkt]]
        shape = wkt ? geometry(wkt) : place[:lat] && point(properties.values_at(place[:lon], place[:lat]))
        name = properties.values_at("name", "Name", "code", "Code").compact.first ||
               properties.except(*place.values).values.first
        Feature.each_of(shape, name:, properties: properties.except(*place.values))
      end

      private_class_method :columns, :features
    end
  end
end
