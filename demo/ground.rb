# frozen_string_literal: true

module Thistle
  module Demo
    # Turns the scenario's metres into GeoJSON geometries: boundary scaled to its hectares, stream, trails,
    # zones and the shapes of patches; and its hills into an elevation grid.
    class Ground
      CELL = 1.0 / 11_000 # degrees: about 10 m

      def initialize(row)
        @row = row
        @lat, @lon = row.values_at("latitude", "longitude")
      end

      # [{ kind:, geometry:, name:, keep_m: }]
      def zones
        plain = [["boundary", boundary], *waters.map { |shape| ["water", shape] },
                 *@row["trails"].map { |line| ["trail", line(bend(line))] }, *@row["buildings"]
                   .map { |ring| ["building", polygon(ring)] }]
        plain.map { |kind, geometry| { kind:, geometry: } } +
          @row.fetch("zones", []).map do |zone|
            { kind: zone["kind"], name: zone["name"], keep_m: zone["keep"]&.to_f, geometry: shape(zone) }
          end
      end

      # An Esri ASCII grid of the hills in cells of about 10 m, and a valley where the stream runs.
      def heights
        columns, rows, cell, west, south = grid
        lines = Array.new(rows) do |row|
          Array.new(columns) do |c|
            format("%.1f", height(*metres(west + ((c + 0.5) * cell), south + ((rows - row - 0.5) * cell))))
          end.join(" ")
        end
        ["ncols #{columns}", "nrows #{rows}", "xllcorner #{west}", "yllcorner #{south}", "cellsize #{cell}",
         "NODATA_value -9999", *lines,
         ""].join("\n")
      end

      def heights_facts
        columns, rows, cell, west, south = grid
        east, north = west + (columns * cell), south + (rows * cell)
        { crs: nil, step: 5, corners: [[west, north], [east, north], [west, south]],
          bounds: [west, south, east, north] }
      end

      def shape(row)
        return { "type" => "Point", "coordinates" => place(*row["point"]) } if row["point"]
        return line(bend(row["way"])) if row["way"]
        return line(row["line"]) if row["line"]
        return polygon(row["ring"]) if row["ring"]

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
        [(polygon(blob(*@row["pond"], corners: 26)) if @row["pond"]),
         (line(bend(@row["stream"])) if @row["stream"].any?)].compact
      end

      def grid
        lons, lats = boundary["coordinates"].first.transpose
        west, south = (lons.min - (4 * CELL)).round(5), (lats.min - (4 * CELL)).round(5)
        [((lons.max - west) / CELL).ceil + 4, ((lats.max - south) / CELL).ceil + 4, CELL.round(10), west, south]
      end

      # Each hill a bell; the ground falls to the stream.
      def height(x, y)
        hills = @row["hills"].sum do |hx, hy, reach|
          reach * 0.16 * Math.exp(-((((x - hx) / reach)**2) + (((y - hy) / (0.62 * reach))**2)) * 1.6)
        end
        stream = @row["stream"].map { |sx, sy| Math.hypot(x - sx, y - sy) }.min || 400
        180 + hills + (12 * (1 - Math.exp(-stream / 180.0)))
      end

      def metres(lon, lat)
        [(lon - @lon) * Land::M_PER_DEGREE * Math.cos(@lat * Math::PI / 180), (lat - @lat) * Land::M_PER_DEGREE]
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
        [(@lon + (x / (Land::M_PER_DEGREE * Math.cos(@lat * Math::PI / 180)))).round(7),
         (@lat + (y / Land::M_PER_DEGREE)).round(7)]
      end
    end
  end
end
