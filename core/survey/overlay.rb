# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # Shapes laid over one another, through GEOS on the first shape's plane. Answers are Shapes, or nil when
      # nothing is left. Slivers below SLIVER_M2, which only rounding makes, are dropped.
      module Overlay
        SLIVER_M2 = 0.01

        class << self
          # One Shape of all ground that any of the shapes covers; shared ground once.
          def union(shapes)
            on(shapes) do |plane, features|
              RGeo::Feature.cast(collection(plane, features), factory: plane.factory).unary_union
            end
          end

          def difference(shape, other) = on([shape, other]) { |_, (a, b)| a.difference(b) }
          def intersection(shape, other) = on([shape, other]) { |_, (a, b)| a.intersection(b) }

          # Everything within `metres` of the shape.
          def buffer(shape, metres) = on([shape]) { |_, (feature)| feature.buffer(metres) }

          # The ground that a patch covers: its area, or a line by its width, or points by their radius; nil without
          # one.
          def ground(shape, width: nil, radius: nil)
            return shape if shape.kind == "polygon"

            reach = shape.kind == "line" ? width && (width / 2.0) : radius
            reach && buffer(shape, reach)
          end

          # m² that two shapes share.
          def shared(shape, other) = intersection(shape, other)&.area || 0.0

          # The parts of an area that a line cuts it into, largest first. Raises BadInput when it does not.
          def split(shape, line)
            plane = shape.plane
            area, blade = plane.feature(shape), plane.feature(line)
            cut = area.boundary.union(blade).polygonize.select { |face| area.contains?(face.point_on_surface) }
            if cut.size <= faces(area).size
              raise BadInput.new("The line does not cut the patch: draw it right across.", field: :cut)
            end

            cut.filter_map { |face| shape_of(plane, face) }.sort_by { |part| -part.area }
          end

          # The same shape with fewer corners for drawing; never stored in the shape's place.
          def drawn(shape, metres)
            return shape if shape.kind == "point"

            plane = shape.plane
            shape_of(plane, plane.feature(shape).simplify_preserve_topology(metres), sliver: 0)
          end

          # The polygons in whatever GEOS answered, or nil.
          def polygons(feature, sliver: SLIVER_M2)
            parts = faces(feature).select { |face| face.area > sliver }
            return if parts.empty?

            parts.size == 1 ? parts.first : feature.factory.multi_polygon(parts)
          end

          private

          def on(shapes)
            plane = shapes.first.plane
            shape_of(plane, yield(plane, shapes.map { |shape| plane.feature(shape) }))
          end

          def shape_of(plane, feature, sliver: SLIVER_M2)
            return Shape.new(plane.geometry(feature), []) if feature.dimension == 1 && !feature.empty?

            found = polygons(feature, sliver:)
            found && Shape.new(plane.geometry(found), [])
          end

          def collection(plane, features) = plane.factory.collection(features)

          def faces(feature)
            case feature.geometry_type
            when RGeo::Feature::Polygon then [feature]
            when RGeo::Feature::MultiPolygon, RGeo::Feature::GeometryCollection then feature.flat_map do |part|
              faces(part)
            end
            else []
            end
          end
        end
      end
    end
  end
end
