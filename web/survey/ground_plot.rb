# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # A property's ground laid out in pixels for plots/ground.erb: equirectangular about the middle,
      # which at a property's size is true to a pixel.
      class GroundPlot
        MOST_CORNERS = 12_000 # of contours: a small plot of more is a grey sheet that takes long to send
        Drawn = Core::Value.define(:id, :code, :title, :state, :hue, :x, :y, :path, :label, :focus)
        WIDTH = 610.0
        MARGIN = 24.0
        ORDER = %w[boundary contour water trail building].freeze

        attr_reader :patches, :zones, :width

        # walk: [[lon, lat]] of a way to draw, numbered where it stops.
        def initialize(property, patches, bounds: nil, focus: nil, width: WIDTH, walk: [])
          @width, @walk = width, walk
          @west, @south, @east, @north = bounds || property.bounds
          @along, @up = Core::Degrees.metres((@south + @north) / 2)
          drawn = property.zones_shown.select { |zone| ORDER.include?(zone.kind) }
                          .map { |zone| [zone.kind, zone.shape] } + contours(property)
          @zones = drawn.sort_by { |kind, _| ORDER.index(kind) }
                        .map { |kind, shape| ["#{kind} #{shape.kind}", path(shape.geometry)] }
          @patches = place(patches, focus)
        end

        # The way in pixels.
        def walk = @walk.map { |lon, lat| point(lon, lat) }

        def height = @height ||= (((@north - @south) * @up * scale) + (2 * MARGIN)).round.clamp(200, 520)

        # Pixels a metre.
        def scale
          @scale ||= [(width - (2 * MARGIN)) / ((@east - @west) * @along), 430 / ((@north - @south) * @up)].min
        end

        def scale_m = [10, 20, 50, 100, 200, 500, 1000, 2000].select { |m| m * scale <= 140 }.max || 10
        def scale_px = (scale_m * scale).round(1)
        def scale_label(units) = units.us? ? "#{(scale_m / 0.3048).round} ft" : "#{scale_m} m"

        private

        def contours(property)
          layer = Store::Layer.heights(property)
          lines = layer ? Layering.contours(layer).map { |_, line| ["contour", line] } : []
          lines.sum { |_, line| line.positions.size } > MOST_CORNERS ? [] : lines
        end

        def place(patches, focus)
          taken = []
          patches.map do |patch|
            shape = patch.shape
            x, y = point(*shape.centre)
            free = taken.none? { |ox, oy| (ox - x).abs < 58 && (oy - y).abs < 15 }
            taken << [x, y] if free
            Drawn.new(id: patch.id, code: patch.code,
                      title: "#{patch.plant&.name || "Not named"}, #{patch.code}, #{Words.state_word(patch.state)}",
                      state: patch.state, hue: Words::STATE_HUES.fetch(patch.state), x:, y:,
                      label: free || patch.id == focus,
                      path: shape.kind == "point" ? nil : path(shape.geometry), focus: patch.id == focus)
          end
        end

        # Everything is centred; what is narrower than the frame gets the same air on both sides.
        def point(lon, lat)
          middle = [(@west + @east) / 2, (@south + @north) / 2]
          [((width / 2) + ((lon - middle[0]) * @along * scale)).round(1),
           ((height / 2) - ((lat - middle[1]) * @up * scale)).round(1)]
        end

        def path(geometry)
          kind = geometry["type"]
          lines = case kind
                  when "Polygon", "MultiLineString" then geometry["coordinates"]
                  when "MultiPolygon" then geometry["coordinates"].flatten(1)
                  when "LineString" then [geometry["coordinates"]]
                  else []
                  end
          close = "Z" if kind.end_with?("Polygon")
          lines.map { |line| "M#{line.map { |lon, lat| point(lon, lat).join(" ") }.join("L")}#{close}" }.join
        end
      end
    end
  end
end
