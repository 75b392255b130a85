# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # A property's ground for paper: A4 across, at a round scale, on the property's equal-area plane, with a grid.
      # Lengths are tenths of a millimetre.
      class SiteMap
        WIDTH, HEIGHT, FRAME = 2970, 2100, [90, 190, 2010, 1800].freeze # x, y, width, height of the map itself
        SCALES = [250, 500, 750, 1000, 1500, 2000, 2500, 3000, 4000, 5000, 6000, 7500, 10_000, 15_000, 20_000, 25_000,
                  50_000, 100_000, 250_000].freeze
        ORDER = %w[boundary contour water wetland disturbance building utility fence trail access].freeze
        DRAWN, LISTED = 600, 46
        Drawn = Core::Value.define(:patch, :x, :y, :path, :label)
        Label = Core::Value.define(:text, :x, :y, :anchor)

        attr_reader :property, :today

        # ids: of the patches to draw, in whatever state; nil for all that are not closed.
        def initialize(property, today, ids: nil)
          @property, @today, @ids = property, today, ids
          west, south, east, north = boundary ? boundary.shape.bounds : property.bounds
          @plane = Core::Survey::Plane.around((west + east) / 2, (south + north) / 2)
          corners = [west, east].product([south, north])
          xs, ys = corners.map { |lon, lat| @plane.point(lon, lat) }.transpose
          @box = [xs.min, ys.min, xs.max, ys.max]
        end

        # One to so many, the largest that fits.
        def scale
          @scale ||= SCALES.find { |s| wide(s) >= @box[2] - @box[0] && high(s) >= @box[3] - @box[1] } || SCALES.last
        end

        def boundary = @property.zones_of("boundary").first

        def zones
          zones = @property.zones_shown.sort_by { |zone| ORDER.index(zone.kind) || ORDER.size }
          zones.map { |zone| [zone, path(zone.shape), *zone_point(zone)] }
        end

        def kept = @property.zones_shown.filter_map { |zone| zone.kept_ground && path(zone.kept_ground) }

        def contours
          layer = Store::Layer.heights(@property)
          layer ? Layering.contours(layer).map { |height, line| [height, path(line)] } : []
        end

        # Patches with a code each where there is room beside the mark, by four tries.
        def patches
          @patches ||= begin
            found = drawable.order(:id).limit(DRAWN).all.map { |p| [p, point(*p.shape.centre)] }
            taken = found.map { |_, (x, y)| [x - 32, y - 32, x + 32, y + 32] }
            found.map do |p, (x, y)|
              Drawn.new(patch: p, x:, y:, path: p.shape.kind == "point" ? nil : path(p.shape),
                        label: place(p.code, x, y, taken))
            end
          end
        end

        def listed = patches.first(LISTED)
        def all = @all ||= drawable.count

        # [[path, label, x, y]] of lines a round distance apart, metres from the south-west of the property.
        def grid
          x0, y0 = [@box[0], @box[1]].map { |m| (m / step).floor * step }
          left, top, width, height = FRAME
          across = (0..60).map { |n| [n * step, sheet(x0 + (n * step), 0)[0]] }
                          .select { |_, x| x.between?(left, left + width) }
          up = (0..60).map { |n| [n * step, sheet(0, y0 + (n * step))[1]] }
                      .select { |_, y| y.between?(top, top + height) }
          [across, up]
        end

        def step
          @step ||= [10, 20, 50, 100, 200, 500, 1000, 2000, 5000].find { |m| m * 10_000.0 / scale >= 220 } || 10_000
        end

        # [m, words] of the longest bar that has room.
        def bar
          @bar ||= bars.reverse.find { |metres, _| metres * 10_000 / scale <= 620 } || bars.first
        end

        def bar_px = (bar[0] * 10_000.0 / scale).round(1)
        def units = @property.measures

        def states
          patches.map { |drawn| drawn.patch.state }
                 .uniq.sort_by { |state| Core::Recheck::PatchLife::STATES.index(state) }
        end

        def kinds = @property.zones_shown.map(&:kind).uniq - %w[contour]

        # Latitude and longitude of the frame's corners, for whoever has only a receiver.
        def corners
          left, top, width, height = FRAME
          [[left, top], [left + width, top + height]].map { |x, y| @plane.place(*ground(x, y)) }
        end

        private

        def drawable
          live = @property.live_patches.unordered
          @ids ? live.where(id: @ids) : live.exclude(state: "closed")
        end

        def bars
          if units.us?
            return [100, 200, 500, 1000, 2000, 5280].map { |feet| [feet * Core::Units::M_PER_FT, "#{feet} ft"] }
          end

          [10, 20, 50, 100, 200, 500, 1000, 2000].map { |metres| [metres, "#{metres} m"] }
        end

        def wide(scale) = FRAME[2] * scale / 10_000.0 * 0.96
        def high(scale) = FRAME[3] * scale / 10_000.0 * 0.96
        def middle = [(@box[0] + @box[2]) / 2, (@box[1] + @box[3]) / 2]

        def sheet(x, y)
          left, top, width, height = FRAME
          [(left + (width / 2) + ((x - middle[0]) * 10_000.0 / scale)).round(1),
           (top + (height / 2) - ((y - middle[1]) * 10_000.0 / scale)).round(1)]
        end

        def ground(x, y)
          left, top, width, height = FRAME
          [middle[0] + ((x - left - (width / 2)) * scale / 10_000.0),
           middle[1] - ((y - top - (height / 2)) * scale / 10_000.0)]
        end

        def point(lon, lat) = sheet(*@plane.point(lon, lat))
        def zone_point(zone) = zone.shape.kind == "point" ? point(*zone.shape.centre) : [nil, nil]

        def path(shape)
          return if shape.kind == "point"

          lines = if shape.kind == "polygon"
                    shape.parts.flatten(1)
                  else
                    [shape.geometry["coordinates"]].then do |l|
                      shape.geometry["type"].start_with?("Multi") ? l.first : l
                    end
                  end
          close = "Z" if shape.kind == "polygon"
          lines.map { |line| "M#{line.map { |lon, lat| point(lon, lat).join(" ") }.join("L")}#{close}" }.join
        end

        def place(text, x, y, taken)
          wide = 8 + (text.size * 22)
          tries = [[36, 12, "start"], [-36, 12, "end"], [0, -42, "middle"], [0, 66, "middle"]]
          tries.each do |dx, dy, anchor|
            from = { "start" => x + dx, "end" => x + dx - wide, "middle" => x - (wide / 2) }[anchor]
            box = [from, y + dy - 30, from + wide, y + dy + 6]
            if taken.any? { |other| other[0] < box[2] && other[2] > box[0] && other[1] < box[3] && other[3] > box[1] }
              next
            end

            taken << box
            return Label.new(text:, x: x + dx, y: y + dy, anchor:)
          end
          nil
        end
      end
    end
  end
end
