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
      ZONE = /\A(utm_?)?zone\z/i
      # One column that holds all of a place (Core::Survey::Position).
      POSITION = /\A((os_?)?grid(_?ref(erence)?)?|ngr|utm|position|coord(inate)?s|lat_?lon|lat_?long|gps)\z/i
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
        kind = Core::Survey::RecordColumns.kind_of(headers) unless places?(headers)
        return records(kind, headers, rows.map(&:fields)) if kind

        unless places?(headers)
          Reader.refuse("The table has no columns of latitude and longitude, and none of well-known text, UTM or a " \
                        "grid reference. It has: #{headers.first(8).join(", ")}.")
        end
        place = columns(headers)
        rows.flat_map { |row| features(row.to_h, place) }
      rescue CSV::MalformedCSVError => e
        Reader.refuse("The table breaks off in line #{e.line_number}: a quote that does not close, or one too many.")
      end

      # [Feature] of headings and rows of texts, as a spreadsheet holds them.
      def of_rows(headers, rows)
        place = columns(headers.reject(&:empty?))
        rows.reject { |row| row.compact.all? { |cell| cell.to_s.strip.empty? } }
            .flat_map { |row| features(headers.zip(row).reject { |header, _| header.empty? }.to_h, place) }
      end

      # [Feature] of a kind of record (Core::Survey::RecordColumns::Kind), one a row: past work, checks, plantings.
      def records(kind, headers, rows)
        named = headers.map { |header| Core::Survey::RecordColumns.named(kind, header) unless header.to_s.empty? }
        rows.filter_map do |row|
          cells = named.zip(row).select { |header, cell| header && !cell.to_s.strip.empty? }
          next if cells.empty?

          Feature.new(properties: cells.to_h { |header, cell| [header, Inert.read(cell)] }, kind: kind.key)
        end
      end

      # Do these headings say where a row is?
      def places?(headers) = !columns(headers.map(&:to_s)).nil?

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

      # A point from whichever columns say where a row is; nil where they say nothing that can be read.
      def placed(properties, place)
        lat, lon, zone, whole = properties.values_at(*place.values_at(:lat, :lon, :zone, :position))
        return at(Core::Survey::Position.read(whole)) if whole && !(lat && lon)
        return unless place[:lat] && place[:lon]

        zone ? in_zone(zone, lon, lat) : point([lon, lat].map { |text| degrees(text) })
      end

      # What UTM says; a row whose metres are none has no place.
      def in_zone(zone, *texts)
        metres = texts.map { |text| Core::Decimal.read(text, comma: :thousands) }
        at(Core::Survey::Position.utm(zone, *metres)) if metres.all?
      end

      # A cell of degrees as a number's text, where it is minutes and seconds; else as it stands.
      def degrees(text) = plain?(text) ? text : Core::Survey::Position.angle(text)&.to_s || text

      def plain?(text) = text.nil? || !Core::Decimal.read(text, comma: :decimal).nil?
      def at(position) = position && { "type" => "Point", "coordinates" => position }

      # GeoJSON geometry of well-known text; nil when it is not. Heights only where the text says that it has them.
      def geometry(text)
        found = RGeo::GeoJSON.encode(PARSER.parse_wkt(text.to_s))
        return found if text.match?(/[A-Z]\s*ZM?\s*\(/i) || found.key?("geometries")

        found.merge("coordinates" => Feature.level(found["coordinates"]))
      rescue RGeo::Error::RGeoError
        nil
      end

      def separator(line) = SEPARATORS.max_by { |mark| line.count(mark) }

      # The headings of a place: {wkt:, lat:, lon:, zone:, position:}; nil for none. "Lat." is latitude.
      def columns(headers)
        bare = headers.to_h { |header| [header, header.strip.tr(" -", "__").delete(".:()°")] }
        found = { wkt: WKT, lat: LATITUDE, lon: LONGITUDE, zone: ZONE, position: POSITION }
                .transform_values { |pattern| headers.find { |header| bare[header].match?(pattern) } }
        found if found[:wkt] || (found[:lat] && found[:lon]) || found[:position]
      end

      def features(row, place)
        given = row.select { |key, value| key && value.to_s.strip != "" }
        properties = given.to_h { |key, value| [key.strip, Inert.read(value)] }
        wkt = place[:wkt] && properties[place[:wkt]]
        shape = wkt ? geometry(wkt) : placed(properties, place)
        name = properties.values_at("name", "Name", "code", "Code").compact.first ||
               properties.except(*place.values).values.first
        Feature.each_of(shape, name:, properties: properties.except(*place.values))
      end

      private_class_method :columns, :features, :placed, :in_zone, :degrees, :plain?, :at
    end
  end
end
