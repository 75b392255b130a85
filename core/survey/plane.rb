# frozen_string_literal: true

require "rgeo"
require "rgeo/geo_json"
require "rgeo/proj4"

module Thistle
  module Core
    module Survey
      # A Lambert azimuthal equal-area plane centred on a place, in metres, for what GEOS does on planes:
      # validity, repair, distance, overlay, buffers. Right to better than 0.1 % within 50 km, with no zone edges.
      class Plane
        PROJ = ->(text) { { coord_sys: text, coord_sys_class: RGeo::CoordSys::Proj4 } }
        GLOBE = RGeo::Geos.factory(srid: 4326, **PROJ["+proj=longlat +datum=WGS84 +no_defs +type=crs"])
        ROUND = 32 # corners of a quarter circle in a buffer: its area is right to 0.04 %
        STEP = 0.25 # degrees: places this near share a plane

        # The Plane for a place in degrees; places within STEP share one.
        def self.around(lon, lat)
          @planes ||= {}
          x, y = (lon / STEP).round, (lat / STEP).round
          @planes[(x * 10_000) + y] ||= new(x * STEP, y * STEP)
        end

        attr_reader :factory

        def initialize(lon, lat)
          @lon = lon
          @features = ObjectSpace::WeakMap.new
          @factory = RGeo::Geos.factory(buffer_resolution: ROUND)
          @projection = Projection.new("+proj=laea +lat_0=#{lat} +lon_0=#{lon} +ellps=WGS84 +units=m")
        end

        # A shape on the plane; projected once for as long as the shape lives.
        def feature(shape) = @features[shape] ||= project(shape.geometry)

        # [x, y] in metres east and north of the plane's middle.
        def point(lon, lat) = @projection.forward([[lon, lat]]).first

        # [longitude, latitude] of a place on the plane.
        def place(x, y) = joined(@projection.inverse([[x, y]]).first)

        # The GeoJSON geometry of something on the plane; longitudes run on past 180° as Meridian has it.
        def geometry(feature)
          found = RGeo::GeoJSON.encode(feature)
          places = moved(found["coordinates"]) { |points| @projection.inverse(points).map { |place| joined(place) } }
          found.merge("coordinates" => places)
        end

        # nil for a valid outline, else { at: [lon, lat], repaired: GeoJSON geometry or nil }.
        def fault(geometry)
          feature = project(geometry)
          return if feature.valid?

          at = feature.invalid_reason_location
          { at: at ? place(at.x, at.y) : geometry["coordinates"].flatten.first(2),
            repaired: repaired(geometry, feature) }
        end

        private

        def project(geometry)
          coordinates = moved(geometry["coordinates"]) { |places| @projection.forward(places) }
          @factory.parse_wkb(Wkb.write(geometry["type"], coordinates))
        end

        # Coordinates of any depth with each list of positions moved at once.
        def moved(list, &move)
          return yield([list.first(2)]).first if list.first.is_a?(Numeric)
          if list.first.first.is_a?(Numeric)
            return yield(list.map { |position| position.size == 2 ? position : position.first(2) })
          end

          list.map { |item| moved(item, &move) }
        end

        # A longitude on the plane's own side of the globe.
        def joined((lon, lat)) = [lon + (((@lon - lon) / 360.0).round * 360), lat]

        # nil when there is none, or it would take too long.
        def repaired(geometry, feature)
          mend = proc { Overlay.polygons(feature.make_valid)&.then { |mended| geometry(mended) } }
          Tangle.heavy?([Shape.new(geometry, [])]) ? Overlay.apart(&mend) : mend.call
        rescue RGeo::Error::RGeoError, Overlay::Tangled
          nil
        end
      end
    end
  end
end
