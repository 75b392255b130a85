# frozen_string_literal: true

require "rgeo"
require "rgeo/proj4"

module Thistle
  module Formats
    # A world file: six lines that place a picture: step east a column, turn, turn, step a row, and the middle of the
    # first pixel, in degrees or in the units of a projection.
    module WorldFile
      CODE = /\AEPSG:\d{1,6}\z/i # a PROJ string could open files

      module_function

      # [north-west, north-east, south-west] corners in [longitude, latitude]. Raises BadInput (field :world).
      def corners(text, width:, height:, crs: nil)
        refuse "#{crs.inspect[0, 60]} is not a code: give it as EPSG:32615." if crs && !CODE.match?(crs)
        numbers = text.to_s.split.map { |word| Core::Decimal.read(word, comma: :decimal) }
        refuse "A world file has six lines with a number each." unless numbers.size == 6 && numbers.all?
        a, d, b, e, x, y = numbers
        refuse "The world file's steps are nought: the picture would have no size." if ((a * e) - (b * d)).zero?
        pixels = [[-0.5, -0.5], [width - 0.5, -0.5], [-0.5, height - 0.5]]
        found = pixels.map { |c, r| place(x + (a * c) + (b * r), y + (d * c) + (e * r), crs) }
        return found if found.all? { |lon, lat| lon.abs <= 360 && lat.abs <= 90 }

        refuse "These are not degrees: say which projection (an EPSG code such as EPSG:32615)."
      rescue RGeo::Error::RGeoError
        refuse "#{crs} is not a projection known here."
      end

      def place(x, y, crs)
        return [x, y] unless crs

        ground = RGeo::Geos.factory(coord_sys: crs, coord_sys_class: RGeo::CoordSys::Proj4)
        at = RGeo::Feature.cast(ground.point(x, y), factory: Core::Survey::Plane::GLOBE, project: true)
        [at.x, at.y]
      end

      def refuse(message) = raise(Core::BadInput.new(message, field: :world))
      private_class_method :place, :refuse
    end
  end
end
