# frozen_string_literal: true

require "chunky_png"

module Thistle
  module Web
    module Survey
      # Takes a user's file as a base layer, and draws what the map asks of it.
      module Layering
        MAX_PIXELS = 60_000_000

        module_function

        # params: file, world (a world file), corners (text), crs. Raises BadInput with the field that is wrong.
        def take(property, params)
          file = Upload.read(params["file"])
          raise Core::BadInput.new("Choose a file first.", field: :file) unless file

          bytes = file[:tempfile].read
          kind, facts = Core::Apart.call { read(bytes, file[:tempfile].path, params) }
          Store::Layer.keep(property, kind:, name: File.basename(file[:filename].to_s.scrub)[0, 80], bytes:, facts:)
        end

        def read(bytes, path, params)
          crs = params["crs"].to_s.strip.then { |text| text.empty? ? nil : text }
          return tiles(path) if bytes.start_with?(Formats::MBTiles::SIGN)
          return picture(bytes, params, crs) if Formats::Image::TYPES.values.any? { |sign| bytes.start_with?(sign) }
          return elevation(bytes, crs, params) if bytes.byteslice(0, 200).match?(/\A\s*(ncols|nrows|cellsize|[xy]ll)/i)

          ["vector", { shapes: Formats::Reader.read(bytes).size }]
        end

        def tiles(path)
          tiles = Formats::MBTiles.new(path)
          ["tiles", tiles.facts]
        ensure
          tiles&.close
        end

        def picture(bytes, params, crs)
          width, height = size(bytes)
          unless width.positive? && height.positive?
            raise Core::BadInput.new("The picture is broken: it has no size.", field: :file)
          end
          if width * height > MAX_PIXELS
            raise Core::BadInput.new("The picture has more than #{MAX_PIXELS / 1_000_000} million pixels.",
                                     field: :file)
          end

          world = Upload.read(params["world"])&.dig(:tempfile)&.read(4096)
          corners = world ? Formats::WorldFile.corners(world, width:, height:, crs:) : corners(params["corners"])
          ["picture", { corners:, bounds: box(corners) }]
        end

        def size(bytes)
          png = bytes.start_with?(Formats::Image::TYPES["image/png"])
          return bytes.ljust(24, "\0").byteslice(16, 8).unpack("NN") if png

          picture = EXIFR::JPEG.new(StringIO.new(bytes))
          [picture.width || 0, picture.height || 0]
        rescue EXIFR::MalformedImage, NoMethodError, TypeError # a spoilt header trips it in many ways
          raise Core::BadInput.new("The picture is broken: it has no size.", field: :file)
        end

        # Three corners as typed: "lat, lon" a line, north-west, north-east, south-west.
        def corners(text)
          words = text.to_s.lines.map { |line| line.split(/[,;\s]+/).reject(&:empty?) }.reject(&:empty?)
          found = words.map { |pair| pair.map { |word| Core::Decimal.read(word, comma: :decimal) } }
          return found.map(&:reverse) if found.size == 3 && found.all? { |pair| on_the_globe?(*pair) }

          raise Core::BadInput.new("Add its world file, or type three corners as latitude, longitude: north-west, " \
                                   "north-east, south-west.", field: :world)
        end

        def on_the_globe?(lat = nil, lon = nil, *more)
          more.empty? && lat&.between?(-90, 90) && lon&.between?(-180, 180)
        end

        def elevation(bytes, crs, params)
          grid = Formats::EsriGrid.read(bytes, crs:)
          raise Core::BadInput.new("The grid holds no heights at all.", field: :file) unless grid.range

          step = Core::Decimal.read(params["step"]) || step_for(grid)
          grid.contours(step)
          ["elevation", { crs:, step:, corners: grid.corners, bounds: grid.bounds, gaps: grid.gaps,
                          cells: grid.columns * grid.rows }]
        end

        # A round step that draws about a dozen contours.
        def step_for(grid)
          low, high = grid.range
          [1, 2, 5, 10, 20, 50, 100].find { |step| (high - low) / step <= 14 } || 200
        end

        def box(corners)
          nw, ne, sw = corners
          lons, lats = [nw, ne, sw, [ne[0] + sw[0] - nw[0], ne[1] + sw[1] - nw[1]]].transpose
          [lons.min, lats.min, lons.max, lats.max]
        end

        # Hill-shade as a PNG: dark where the light does not fall, clear at gaps.
        def shade(grid)
          png = ChunkyPNG::Image.new(grid.columns, grid.rows, ChunkyPNG::Color::TRANSPARENT)
          grid.shades.each_with_index do |light, n|
            if light
              png[n % grid.columns, n / grid.columns] = ChunkyPNG::Color.rgba(30, 42, 39, ((255 - light) * 0.8).round)
            end
          end
          png.to_blob(:fast_rgba)
        end

        # GeoJSON of a vector layer, or of an elevation grid's contours.
        def lines(layer)
          return vectors(layer) unless layer.kind == "elevation"

          Formats::GeoJSON.write(contours(layer).map { |height, line| { shape: line, properties: { height: } } })
        end

        def vectors(layer)
          drawn = Formats::Reader.read(layer.bytes).select(&:geometry)
          rows = drawn.map { |one| { type: "Feature", geometry: one.geometry, properties: { name: one.name } } }
          JSON.generate(type: "FeatureCollection", features: rows)
        end

        # [[height, Shape]]
        def contours(layer)
          Core::Kept::ANSWERS.fetch([:contours, layer.file]) do
            layer.grid.contours(layer.details["step"])
                 .map do |height, line|
                   [height, Core::Survey::Shape.new({ "type" => "LineString", "coordinates" => line }, [])]
                 end
          end
        end
      end
    end
  end
end
