# frozen_string_literal: true

require "json"

module Thistle
  module Core
    module Survey
      # A place on the ground from a GeoJSON geometry (RFC 7946: [longitude, latitude]). Measures on the ellipsoid;
      # validity, repair and distance through GEOS in an equal-area projection centred on the shape.
      # Raises BadInput (field :geometry) that says what is wrong and, for crossed lines, where; `repaired`
      # then holds a shape that would do.
      class Shape
        KINDS = { "Point" => "point", "MultiPoint" => "point", "LineString" => "line", "MultiLineString" => "line",
                  "Polygon" => "polygon", "MultiPolygon" => "polygon" }.freeze
        # How deep the lists of positions lie.
        DEPTHS = { "Point" => 0, "MultiPoint" => 1, "LineString" => 1, "MultiLineString" => 2, "Polygon" => 2,
                   "MultiPolygon" => 3 }.freeze
        SMALL = 0.02 # degrees
        MAX_SPAN = 5.0 # degrees: a patch or a property is not larger than that

        # A geometry that cannot stand as it is, with a repaired one where there is one.
        class Crossed < BadInput
          attr_reader :repaired, :at

          def initialize(message, at:, repaired:)
            super(message, field: :geometry)
            @at, @repaired = at, repaired
          end
        end

        attr_reader :geometry

        # A Shape of GeoJSON, as text or as a Hash. Raises BadInput (field :geometry) for what is none, Crossed for an
        # outline that crosses itself.
        def self.parse(text)
          raise BadInput.new("Draw a point, a line or an area first.", field: :geometry) if text.to_s.strip.empty?

          new(text.is_a?(Hash) ? text : JSON.parse(text.to_s))
        rescue JSON::ParserError
          raise BadInput.new("That is not a GeoJSON geometry.", field: :geometry)
        end

        # A shape that was checked before it was stored: not checked again.
        def self.stored(text) = new(JSON.parse(text), [])

        CHECKS = %i[check_kind check_positions check_validity].freeze
        private_constant :CHECKS

        def initialize(geometry, checks = CHECKS)
          @geometry, @known = geometry, {}
          checks.each { |check| send(check) }
          freeze
        end

        # Between processes goes what cannot be worked out at once.
        def marshal_dump = [geometry, bounds]

        # The same shape on the other side.
        def marshal_load((geometry, bounds))
          @geometry, @known = geometry, { bounds: }
          freeze
        end

        # The geometry as RFC 7946 wants it: within ±180, right-hand rings, seven decimals.
        def published = Published.geometry(Meridian.cut(geometry))

        def kind = KINDS.fetch(geometry["type"])
        def positions = @known[:positions] ||= flat(geometry["coordinates"])

        # [west, south, east, north]
        def bounds
          @known[:bounds] ||= begin
            lon, lat = positions.transpose
            [lon.min, lat.min, lon.max, lat.max]
          end
        end

        # [longitude, latitude] of the middle of its box, degrees.
        def centre
          west, south, east, north = bounds
          [(west + east) / 2, (south + north) / 2]
        end

        # m² for polygons, holes taken out; 0 for points and lines.
        def area
          return 0.0 unless kind == "polygon"

          parts.sum { |rings| rings.each_with_index.sum { |ring, n| (n.zero? ? 1 : -1) * Geodesic.area(ring) } }
        end

        # m: perimeter of polygons, length of lines.
        def length
          case kind
          when "polygon" then parts.flatten(1).sum { |ring| Geodesic.perimeter(ring) }
          when "line" then lines.sum { |line| Geodesic.length(line) }
          else 0.0
          end
        end

        # Gross area in m²: polygons as drawn, lines by width, points by radius. width and radius in m.
        def gross_area(width: nil, radius: nil)
          case kind
          when "polygon" then area
          when "line" then width && (length * width)
          else radius && (positions.size * Math::PI * radius * radius)
          end
        end

        # Polygons as lists of rings, the outline first, then the holes.
        def parts = geometry["type"] == "Polygon" ? [geometry["coordinates"]] : geometry["coordinates"]

        # m between the nearest points of two shapes; 0 when they touch.
        def distance(other) = plane.feature(self).distance(plane.feature(other))

        def plane = Plane.around(*centre)

        private

        def lines = geometry["type"] == "LineString" ? [geometry["coordinates"]] : geometry["coordinates"]
        def flat(list) = list.first.is_a?(Numeric) ? [list[0, 2]] : list.flat_map { |item| flat(item) }

        def check_kind
          raise BadInput.new("That is not a GeoJSON geometry.", field: :geometry) unless geometry.is_a?(Hash)
          raise BadInput.new("#{geometry["type"] || "That"} is not a point, line or area.", field: :geometry) unless
            KINDS.key?(geometry["type"])
        end

        def check_positions
          check_depth
          found = positions
          raise BadInput.new("The shape is empty: draw it again.", field: :geometry) if found.empty?

          found.each { |position| check_position(position) }
          join_at_the_meridian
          west, south, east, north = bounds
          return unless east - west > MAX_SPAN || north - south > MAX_SPAN

          raise BadInput.new("The shape spans more than #{MAX_SPAN.to_i} degrees; a corner must be far off.",
                             field: :geometry)
        rescue NoMethodError, TypeError
          raise BadInput.new("The shape is empty or its coordinates are not numbers.", field: :geometry)
        end

        def check_depth
          return if nested?(geometry["coordinates"], DEPTHS.fetch(geometry["type"]))

          raise BadInput.new("Its coordinates are not those of a #{geometry["type"]}.", field: :geometry)
        end

        def nested?(list, depth)
          return false unless list.is_a?(Array)
          return list.all? { |item| nested?(item, depth - 1) } if depth.positive?

          list.empty? || (list.size >= 2 && !list[0].is_a?(Array) && !list[1].is_a?(Array))
        end

        def join_at_the_meridian
          return if bounds[2] - bounds[0] <= 180

          @geometry = Meridian.join(geometry)
          @known.clear
        end

        def check_position((lon, lat))
          raise TypeError unless lon.is_a?(Numeric) && lat.is_a?(Numeric)
          return if lon.between?(-180, 180) && lat.between?(-90, 90)

          raise BadInput.new("#{lon}, #{lat} is not on the globe.#{hint(lon, lat)}", field: :geometry)
        end

        def hint(lon, lat)
          return " Latitude and longitude look swapped." if lat.between?(-180, 180) && lon.between?(-90, 90)
          if [lon, lat].any? { |n| n.abs > 1000 }
            return " These are not degrees: save the file in longitude and latitude (WGS84)."
          end

          ""
        end

        def check_validity
          check_lines if kind == "line"
          return unless kind == "polygon"

          parts.flatten(1).each do |ring|
            next if ring.size >= 4 && three_corners?(ring)

            raise BadInput.new("An area needs at least three different corners.", field: :geometry)
          end
          unless parts.flatten(1).all? { |ring| two(ring.first) == two(ring.last) }
            raise BadInput.new("The outline does not come back to where it began.", field: :geometry)
          end

          fault = sound? ? nil : plane.fault(geometry)
          return unless fault

          raise Crossed.new("The outline crosses itself near #{place(fault[:at])}.", **fault.slice(:at, :repaired))
        end

        # The quick look: a small outline that does not cross itself in degrees does not do so in metres.
        def sound?
          west, south, east, north = bounds
          east - west < SMALL && north - south < SMALL &&
            Meridian::FLAT.parse_wkb(Wkb.write(geometry["type"], two(geometry["coordinates"]))).valid?
        end

        # At least three different corners.
        def three_corners?(ring)
          second = ring.find { |corner| corner != ring[0] }
          second && ring.any? { |corner| corner != ring[0] && corner != second }
        end

        def two(list) = list.first.is_a?(Numeric) ? list.first(2) : list.map { |item| two(item) }

        def check_lines
          return if lines.all? { |line| line.uniq.size >= 2 }

          raise BadInput.new("The line has no length: it needs two different ends.", field: :geometry)
        end

        def place((lon, lat))
          lon -= 360 if lon > 180
          "#{lat.abs.round(5)}° #{lat.negative? ? "S" : "N"}, #{lon.abs.round(5)}° #{lon.negative? ? "W" : "E"}"
        end
      end
    end
  end
end
