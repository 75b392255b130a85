# frozen_string_literal: true

module Thistle
  module Demo
    # Turns the scenario's metres into GeoJSON geometries: boundary scaled to its hectares, stream, trails,
    # contours around hills, and the shapes of patches.
    class Ground
      RINGS = [1.0, 0.7, 0.42, 0.18].freeze # contours, as shares of a hill's reach

      def initialize(row)
        @row = row
        @lat, @lon = row.values_at("latitude", "longitude")
      end

      # [[kind, geometry]]
      def zones
        [["boundary", boundary], *contours.map { |line| ["contour", line] }, *waters.map { |shape| ["water", shape] },
         *@row["trails"].map { |line| ["trail", line(bend(line))] }, *@row["buildings"].map { |ring| ["building", polygon(ring)] }]
      end

      def shape(row)
        return { "type" => "Point", "coordinates" => place(*row["point"]) } if row["point"]
        return line(row["line"]) if row["line"]

        polygon(blob(*row["blob"]))
      end

      private

      # The drawn outline, grown or shrunk about the middle until its geodesic area is as said.
      def boundary
        outline = @row["boundary"]
        drawn = Core::Survey::Shape.new(polygon(outline)).area
        factor = Math.sqrt(@row["area_ha"] * 10_000 / drawn)
        polygon(outline.map { |x, y| [x * factor, y * factor] })
      end

      def waters
        [(polygon(blob(*@row["pond"], corners: 26)) if @row["pond"]), (line(bend(@row["stream"])) if @row["stream"].any?)].compact
      end

      def contours
        @row["hills"].flat_map do |x, y, reach|
          RINGS.map { |share| line(close(blob(x, y, reach * share, reach * share * 0.62, corners: 30))) }
        end
      end

      # A closed irregular outline about a middle, the same every time.
      def blob(x, y, wide, high, corners: 14)
        (0...corners).map do |n|
          turn = 2 * Math::PI * n / corners
          wobble = 1 + (0.13 * Math.sin((3 * turn) + x)) + (0.08 * Math.cos((5 * turn) + y))
          [x + (wide * wobble * Math.cos(turn)), y + (high * wobble * Math.sin(turn))]
        end
      end

      # The same way with its corners rounded: corner cutting, three times.
      def bend(points)
        3.times do
          cut = points.each_cons(2).flat_map { |a, b| [between(a, b, 0.25), between(a, b, 0.75)] }
          points = [points.first, *cut, points.last]
        end
        points
      end

      def between(a, b, share) = a.zip(b).map { |from, to| from + ((to - from) * share) }

      def polygon(ring) = { "type" => "Polygon", "coordinates" => [close(ring).map { |x, y| place(x, y) }] }
      def line(points) = { "type" => "LineString", "coordinates" => points.map { |x, y| place(x, y) } }
      def close(ring) = ring.first == ring.last ? ring : [*ring, ring.first]

      def place(x, y)
        [(@lon + (x / (Land::M_PER_DEGREE * Math.cos(@lat * Math::PI / 180)))).round(7), (@lat + (y / Land::M_PER_DEGREE)).round(7)]
      end
    end
  end
end
