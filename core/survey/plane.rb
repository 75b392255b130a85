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

        def self.around(lon, lat)
          @planes ||= {}
          key = [lon, lat].map { |degrees| (degrees / STEP).round * STEP }
          @planes[key] ||= new(*key)
        end

        attr_reader :factory

        def initialize(lon, lat)
          @lon = lon
          @features = ObjectSpace::WeakMap.new
          @factory = RGeo::Geos.factory(buffer_resolution: ROUND,
                                        **PROJ["+proj=laea +lat_0=#{lat} +lon_0=#{lon} +ellps=WGS84 +units=m +no_defs +type=crs"])
        end

        # A shape on the plane; projected once for as long as the shape lives.
        def feature(shape) = @features[shape] ||= project(shape.geometry)

        # [x, y] in metres east and north of the plane's middle.
        def point(lon, lat)
          at = RGeo::Feature.cast(GLOBE.point(lon, lat), factory: @factory, project: true)
          [at.x, at.y]
        end

        # [longitude, latitude] of a place on the plane.
        def place(x, y) = joined(back(@factory.point(x, y)).coordinates)

        # The GeoJSON geometry of something on the plane; longitudes run on past 180° as Meridian has it.
        def geometry(feature)
          found = RGeo::GeoJSON.encode(back(feature))
          found.merge("coordinates" => joined(found["coordinates"]))
        end

        # nil for a valid outline, else { at: [lon, lat], repaired: GeoJSON geometry or nil }.
        def fault(geometry)
          feature = project(geometry)
          return if feature.valid?

          at = feature.invalid_reason_location
          { at: at ? back(at).coordinates : geometry["coordinates"].flatten.first(2), repaired: repaired(feature) }
        end

        private

        def project(geometry)
          globe = RGeo::GeoJSON.decode(flat(geometry), geo_factory: GLOBE)
          RGeo::Feature.cast(globe, factory: @factory, project: true)
        end

        def back(feature) = RGeo::Feature.cast(feature, factory: GLOBE, project: true)

        # Longitudes on the plane's own side of the globe.
        def joined(list)
          return list.map { |item| joined(item) } if list.first.is_a?(Array)
          return list if list.empty? || (list[0] - @lon).abs <= 180

          [list[0] + (list[0] < @lon ? 360 : -360), list[1]]
        end

        def repaired(feature)
          mended = Overlay.polygons(feature.make_valid)
          mended && geometry(mended)
        rescue RGeo::Error::RGeoError
          nil
        end

        def flat(geometry) = geometry.merge("coordinates" => two(geometry["coordinates"]))
        def two(list) = list.first.is_a?(Numeric) ? list[0, 2] : list.map { |item| two(item) }
      end
    end
  end
end
