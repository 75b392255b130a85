# frozen_string_literal: true

module Thistle
  module Formats
    # KML 2.3 (OGC): placemarks with points, lines and polygons.
    module KML
      module_function

      # [Feature] of the bytes, one for each kind of geometry in a placemark. Raises BadInput for what is no KML.
      def read(bytes)
        Xml.parse(bytes, "KML").xpath("//Placemark").flat_map { |mark| features(mark) }
      end

      # A placemark may hold several geometries: of one kind they are its parts, else each is a feature of its own.
      def features(mark)
        name = Xml.text(mark, "name")
        properties = { "description" => Xml.text(mark, "description") }
        mark.xpath("descendant::SimpleData | descendant::Data").each { |row| properties[row["name"]] = row.text.strip }
        shapes = mark.xpath("descendant::Point | descendant::LineString | descendant::Polygon | " \
                            "descendant::LinearRing[not(ancestor::Polygon)]")
        shapes.map { |node| geometry(node) }.group_by { |shape| shape["type"] }.map do |type, parts|
          together = { "type" => "Multi#{type}", "coordinates" => parts.map { |shape| shape["coordinates"] } }
          Feature.new(geometry: parts.one? ? parts.first : together, name:, properties: properties.compact)
        end
      end

      # GeoJSON of a KML geometry's node; heights are left out.
      def geometry(node)
        case node.name
        when "Point" then { "type" => "Point", "coordinates" => positions(node).first || [] }
        when "LineString", "LinearRing" then { "type" => "LineString", "coordinates" => positions(node) }
        else
          rings = node.xpath("outerBoundaryIs | innerBoundaryIs")
          { "type" => "Polygon", "coordinates" => rings.map { |ring| positions(ring) } }
        end
      end

      # [[lon, lat], ...] of a node; what is no number stays as it is written, for the shape to complain of.
      def positions(node)
        (Xml.text(node, ".//coordinates") ||
         "").split.map { |triple| triple.split(",").first(2).map { |n| Core::Decimal.read(n, comma: :decimal) || n } }
      end

      # features: hashes of name, shape (Core::Survey::Shape) and properties, written one after the other. Answers
      # `out`.
      def write(features, out = +"", title:)
        Xml.around(out, %(<kml xmlns="http://www.opengis.net/kml/2.2"><Document><name>#{Xml.escape(title)}</name>),
                   "</Document></kml>") do |element|
          features.each { |feature| element.call { |xml| placemark(xml, feature) } }
        end
      end

      def placemark(xml, feature)
        xml.Placemark do
          xml.name feature[:name]
          xml.ExtendedData do
            feature[:properties].compact.each { |key, value| xml.Data(name: key) { xml.value value } }
          end
          shape(xml, feature[:shape].published)
        end
      end

      def shape(xml, geometry)
        type, coordinates = geometry.values_at("type", "coordinates")
        if type.start_with?("Multi")
          return xml.MultiGeometry do
            coordinates.each do |c|
              shape(xml, { "type" => type.delete_prefix("Multi"), "coordinates" => c })
            end
          end
        end

        case type
        when "Point" then xml.Point { xml.coordinates line([coordinates]) }
        when "LineString" then xml.LineString { xml.coordinates line(coordinates) }
        else xml.Polygon do
          coordinates.each_with_index { |ring, n| ring(xml, ring, n.zero? ? :outerBoundaryIs : :innerBoundaryIs) }
        end
        end
      end

      def ring(xml, positions, name) = xml.send(name) { xml.LinearRing { xml.coordinates line(positions) } }
      def line(positions) = positions.map { |lon, lat| "#{lon},#{lat}" }.join(" ")
      private_class_method :placemark, :shape, :ring, :line
    end
  end
end
