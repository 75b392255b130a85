# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # Shapes laid over one another, through GEOS on the first shape's plane. Answers are Shapes, or nil when
      # nothing is left. Slivers below SLIVER_M2, which only rounding makes, are dropped. What is too much to be done
      # while others wait (Tangle) runs apart within a budget; Tangled says that it went beyond.
      module Overlay
        SLIVER_M2 = 0.01
        SHARED_M2 = 0.05 # what two areas share beyond is no rounding of their edge
        LIMITS = { seconds: 1.2, patience: 0.7, altogether: 1.8 }.freeze # of what runs apart; see Apart
        MEGABYTES = 400
        RUN = (8..60) # edges: short where few cross often, longer on a track of many fixes
        PLACES = Places.new("thistle-ground", 2, full: "Many shapes are being measured now. Try again in a moment.")

        # It crosses itself, or another, too often.
        class Tangled < BadInput
          SAID = "The lines cross too often to be measured here. Record fewer fixes, or draw the area instead."

          def initialize(message = SAID, field: :geometry) = super
        end

        class << self
          attr_writer :limits

          def limits = @limits || LIMITS

          # One Shape of all ground that any of the shapes covers; shared ground once.
          def union(shapes)
            on(shapes) { |plane, features| together(plane, features) }
          end

          def difference(shape, other) = on([shape, other]) { |_, (a, b)| a.difference(b) }
          def intersection(shape, other) = on([shape, other]) { |_, (a, b)| a.intersection(b) }

          # Everything within `metres` of the shape.
          def buffer(shape, metres)
            on([shape], reach: metres) do |plane, (feature), heavy|
              heavy && shape.kind == "line" ? run_by_run(plane, feature, metres) : feature.buffer(metres)
            end
          end

          # The ground that a patch covers: its area, or a line by its width, or points by their radius; nil without
          # one.
          def ground(shape, width: nil, radius: nil)
            return shape if shape.kind == "polygon"

            reach = shape.kind == "line" ? width && (width / 2.0) : radius
            reach && buffer(shape, reach)
          end

          # m² that two shapes share.
          def shared(shape, other) = intersection(shape, other)&.area || 0.0

          # Does one lie on the other? Areas that only touch do not: neighbours share an edge.
          def meet?(shape, other)
            return shape.distance(other).zero? unless [shape, other].all? { |one| one.kind == "polygon" }

            shared(shape, other) > SHARED_M2
          end

          # The parts of an area that a line cuts it into, largest first. Raises BadInput when it does not.
          def split(shape, line)
            parts = worked([shape, line]) do |plane, (area, blade)|
              cut = area.boundary.union(blade).polygonize.select { |face| area.contains?(face.point_on_surface) }
              cut.size <= faces(area).size ? [] : cut.filter_map { |face| plain(plane, face) }
            end
            raise BadInput.new("The line does not cut the patch: draw it right across.", field: :cut) if parts.empty?

            parts.map { |part| Shape.new(part, []) }.sort_by { |part| -part.area }
          end

          # The same shape with fewer corners for drawing; never stored in the shape's place.
          def drawn(shape, metres)
            return shape if shape.kind == "point"

            plane = shape.plane
            Shape.new(plain(plane, plane.feature(shape).simplify_preserve_topology(metres), sliver: 0), [])
          end

          # What the block answers, worked out apart: plain values. Raises Tangled when it is too much.
          def apart(&)
            Apart.call(field: :geometry, limits:, megabytes: MEGABYTES, places: PLACES, cut_off: Tangled::SAID, &)
          rescue BadInput => e
            raise Tangled.new(e.message, field: e.field)
          end

          # The polygons in whatever GEOS answered, or nil.
          def polygons(feature, sliver: SLIVER_M2)
            parts = faces(feature).select { |face| face.area > sliver }
            return if parts.empty?

            parts.size == 1 ? parts.first : feature.factory.multi_polygon(parts)
          end

          private

          def on(shapes, **how)
            found = worked(shapes, **how) { |plane, *given| plain(plane, yield(plane, *given)) }
            found && Shape.new(found, [])
          end

          # What the block makes of the first shape's plane, the shapes on it and whether they are heavy: plain values,
          # since what is heavy is worked out apart. Raises Tangled.
          def worked(shapes, reach: 0, &work)
            return lay(shapes, false, &work) unless Tangle.heavy?(shapes, reach:)

            apart { lay(shapes, true, &work) }
          end

          def lay(shapes, heavy)
            plane = shapes.first.plane
            yield plane, shapes.map { |shape| plane.feature(shape) }, heavy
          end

          # A GeoJSON geometry of what GEOS answered; nil when nothing is left.
          def plain(plane, feature, sliver: SLIVER_M2)
            found = feature.dimension == 1 && !feature.empty? ? feature : polygons(feature, sliver:)
            found && plane.geometry(found)
          end

          # A line that crosses itself, widened in short runs that are put together: GEOS takes the whole of it at once
          # with all crossings of its two sides.
          def run_by_run(plane, line, metres)
            runs = line.geometry_type == RGeo::Feature::LineString ? [line] : line.to_a
            size = (runs.sum(&:num_points) / 100).clamp(RUN)
            together(plane, runs.flat_map do |one|
              one.points.each_cons(2).each_slice(size).map do |edges|
                plane.factory.line_string([edges.first[0], *edges.map(&:last)]).buffer(metres)
              end
            end)
          end

          def together(plane, features)
            RGeo::Feature.cast(collection(plane, features), factory: plane.factory).unary_union
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
