# frozen_string_literal: true

module Thistle
  module Formats
    # KML 2.3 (OGC): placemarks with points, lines and polygons.
    module KML
      module_function

      def read(bytes)
        Xml.parse(bytes, "KML").xpath("//Placemark").flat_map { |mark| features(mark) }
      end

      # A placemark may hold several geometries; each becomes a feature of its own.
      def features(mark)
        name = Xml.text(mark, "name")
        properties = { "description" => Xml.text(mark, "description") }
        mark.xpath("descendant::SimpleData | descendant::Data").each { |row| properties[row["name"]] = row.text.strip }
        mark.xpath("descendant::Point | descendant::LineString | descendant::Polygon").map do |node|
          Feature.new(geometry: geometry(node), name:, properties: properties.compact)
        end
      end

      def geometry(node)
        case node.name
        when "Point" then { "type" => "Point", "coordinates" => positions(node).first || [] }
        when "LineString" then { "type" => "LineString", "coordinates" => positions(node) }
        else { "type" => "Polygon", "coordinates" => node.xpath("outerBoundaryIs | innerBoundaryIs").map { |ring| positions(ring) } }
        end
      end

      def positions(node)
        (Xml.text(node, ".//coordinates") || "").split.map { |triple| triple.split(",").first(2).map(&:to_f) }
      end
    end
  end
end
