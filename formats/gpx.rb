# frozen_string_literal: true

module Thistle
  module Formats
    # GPX 1.1: waypoints are points, tracks and routes are lines; a track that comes back to within
    # 15 m of its start is the edge of an area.
    module GPX
      CLOSES_WITHIN_M = 15

      module_function

      def read(bytes)
        document = Xml.parse(bytes, "GPX")
        document.xpath("//wpt").map { |node| feature(node, "Point", position(node)) } +
          document.xpath("//trk/trkseg | //rte").filter_map { |node| walk(node) }
      end

      def walk(node)
        line = node.xpath("trkpt | rtept").map { |point| position(point) }
        return if line.size < 2

        owner = node.name == "rte" ? node : node.parent
        return feature(owner, "LineString", line) unless closed?(line)

        feature(owner, "Polygon", [line.first == line.last ? line : [*line, line.first]])
      end

      def closed?(line)
        line.size >= 4 && Core::Survey::Geodesic.distance(line.first, line.last) <= CLOSES_WITHIN_M
      end

      def position(node) = [node["lon"].to_f, node["lat"].to_f]

      def feature(node, type, coordinates)
        Feature.new(geometry: { "type" => type, "coordinates" => coordinates }, name: Xml.text(node, "name"),
                    properties: { "description" => Xml.text(node, "desc") }.compact)
      end
    end
  end
end
