# frozen_string_literal: true

require "json"

module Thistle
  module Formats
    # TopoJSON: areas that share their borders as arcs, each corner the step from the last. As boundaries are shipped
    # (us-atlas, world-atlas); never what people bring.
    module TopoJson
      module_function

      # {name => [polygons]} of an object of the file: a polygon is its rings, a ring its [longitude, latitude].
      def read(text, object)
        data = JSON.parse(text)
        arcs = data.fetch("arcs").map { |arc| steps(arc, data["transform"]) }
        data.fetch("objects").fetch(object).fetch("geometries").each_with_object({}) do |shape, all|
          name = shape.dig("properties", "name") or next
          (all[name] ||= []).concat(polygons(shape).map { |rings| rings.map { |ring| joined(ring, arcs) } })
        end
      end

      def steps(arc, transform)
        x = y = 0
        (kx, ky), (dx, dy) = transform.values_at("scale", "translate")
        arc.map do |step|
          x += step[0]
          y += step[1]
          [(x * kx) + dx, (y * ky) + dy]
        end
      end

      def polygons(shape)
        case shape["type"]
        when "Polygon" then [shape["arcs"]]
        when "MultiPolygon" then shape["arcs"]
        else []
        end
      end

      # Arcs end to end; a negative number is one backwards (its complement).
      def joined(numbers, arcs)
        numbers.flat_map.with_index do |number, n|
          points = number.negative? ? arcs[~number].reverse : arcs[number]
          n.zero? ? points : points.drop(1)
        end
      end
      private_class_method :steps, :polygons, :joined
    end
  end
end
