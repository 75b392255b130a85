# frozen_string_literal: true

require "json"
require "time"

module Thistle
  module Formats
    # GPX 1.1: waypoints are points, tracks and routes are lines; a track that comes back to within
    # 15 m of its start is the edge of an area.
    module GPX
      CLOSES_WITHIN_M = 15
      METRES_A_DILUTION = 5.0 # accuracy for a horizontal dilution of 1 (memory)
      OURS = "urn:nimble-thistle:patch"

      module_function

      # [Feature] of the bytes: waypoints, then routes and tracks. Raises BadInput for what is no GPX.
      def read(bytes)
        document = Xml.parse(bytes, "GPX")
        document.xpath("//wpt").map { |node| own(node) || feature(node, "Point", position(node)) } +
          document.xpath("//rte | //trk").flat_map { |node| own(node) || walks(node) }
      end

      # [Core::Survey::Track::Fix] of every track in the file, for a walk.
      def fixes(bytes)
        Xml.parse(bytes, "GPX").xpath("//trkpt[time]").filter_map do |node|
          lon, lat = position(node)
          next unless lon && lat

          dilution = Core::Decimal.read(Xml.text(node, "hdop"))
          Core::Survey::Track::Fix.new(lon:, lat:, time: Time.iso8601(Xml.text(node, "time")).to_f,
                                       accuracy_m: dilution && (dilution * METRES_A_DILUTION))
        rescue ArgumentError
          Reader.refuse("A track point has a time that is not one: #{Xml.text(node, "time")}.")
        end
      end

      def walks(node)
        segments = node.xpath("trkseg").map { |segment| segment.xpath("trkpt") }
        lists = node.name == "rte" ? [node.xpath("rtept")] : segments
        lists.filter_map { |points| walk(node, points.map { |point| position(point) }) }
      end

      def walk(node, line)
        return if line.size < 2
        return feature(node, "LineString", line) unless closed?(line)

        feature(node, "Polygon", [line.first == line.last ? line : [*line, line.first]])
      end

      # Does a line, [[lon, lat], ...], end within CLOSES_WITHIN_M of where it began?
      def closed?(line)
        line.size >= 4 && line.flatten.all?(Numeric) &&
          Core::Survey::Geodesic.distance(line.first, line.last) <= CLOSES_WITHIN_M
      end

      def position(node) = [node["lon"], node["lat"]].map { |text| Core::Decimal.read(text, comma: :decimal) }

      # The Feature of a waypoint or track, named and described as it says.
      def feature(node, type, coordinates)
        Feature.new(geometry: { "type" => type, "coordinates" => coordinates }, name: Xml.text(node, "name"),
                    properties: { "description" => Xml.text(node, "desc") }.compact)
      end

      # What `write` put beside a patch, holes and parts and all; nil in anyone else's file.
      def own(node)
        text = Xml.text(node, "extensions/patch") or return
        data = JSON.parse(text)
        geometry, properties = data.values_at("geometry", "properties") if data.is_a?(Hash)
        return unless geometry.is_a?(Hash) && properties.is_a?(Hash)

        Feature.new(geometry:, name: Xml.text(node, "name"), properties:)
      rescue JSON::ParserError
        nil
      end

      # Points become waypoints, lines and edges tracks; the whole patch goes along as an extension. Waypoints come
      # first, as the schema wants, so features are gone through twice. Answers `out`.
      def write(features, out = +"", title:)
        names = %(xmlns="http://www.topografix.com/GPX/1/1" xmlns:t="#{OURS}")
        heading = "<metadata><name>#{Xml.escape(title)}</name></metadata>"
        opening = %(<gpx #{names} version="1.1" creator="Nimble Thistle">#{heading})
        Xml.around(out, opening, "</gpx>") do |element|
          %i[waypoint track].each do |kind|
            features.each { |feature| element.call { |xml| send(kind, xml, feature) } if kind == kind_of(feature) }
          end
        end
      end

      def kind_of(feature) = feature[:shape].geometry["type"] == "Point" ? :waypoint : :track

      def waypoint(xml, feature)
        lon, lat = feature[:shape].published["coordinates"]
        xml.wpt(lat:, lon:) { described(xml, feature) }
      end

      def track(xml, feature)
        xml.trk do
          described(xml, feature)
          lines(feature[:shape].published).each do |line|
            xml.trkseg { line.each { |lon, lat| xml.trkpt(lat:, lon:) } }
          end
        end
      end

      def described(xml, feature)
        xml.name feature[:name]
        xml.desc feature[:properties].compact.map { |key, value| "#{key}: #{value}" }.join("; ")
        xml.extensions do
          xml.send(:"t:patch", JSON.generate(geometry: feature[:shape].published,
                                             properties: feature[:properties].compact))
        end
      end

      def lines(geometry)
        case geometry["type"]
        when "MultiPoint" then geometry["coordinates"].zip
        when "LineString" then [geometry["coordinates"]]
        when "MultiPolygon" then geometry["coordinates"].flatten(1)
        else geometry["coordinates"]
        end
      end
      private_class_method :kind_of, :waypoint, :track, :described, :lines, :own, :walks, :walk, :closed?, :position,
                           :feature
    end
  end
end
