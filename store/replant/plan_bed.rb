# frozen_string_literal: true

module Thistle
  module Store
    # Process: the real ground of a planting plan, and its plants laid out on it. The bed's own plane has its origin at
    # the south-west corner of the patch, so that numbers stay short.
    class PlanBed
      ROUND = 2 # decimals of a metre
      BLUNT = 0.5 # m that a line or a point takes up where its kind gives no width

      def initialize(plan)
        @plan = plan
        @patch = plan.patch
        @ground = @patch.ground or raise Core::BadInput.new("Draw the patch’s ground first: a place without a size " \
                                                            "cannot be laid out.", field: :area)
      end

      # Lays the plants out and keeps that. grid, front, standing [[x, y, r]] (m on the bed's plane): as
      # Core::Replant::Layout has them. Raises Core::BadInput (field :area or :spacing).
      def lay(grid: "triangular", front: nil, standing: [])
        trees = standing.map { |x, y, r| Core::Replant::Bed::Standing.new(x:, y:, r:) }
        bed = Core::Replant::Bed.new(rings, standing: trees).nearest(@plan.area_m2, front || 180)
        plants = @plan.seed? ? [] : layout(bed, grid, front).plants
        plants = plants.map { |x, y, n| [x.round(ROUND), y.round(ROUND), n] }
        { origin:, grid:, front:, standing:, rings: round(bed.rings), area_m2: bed.area.round(1), plants: }
      end

      # The ground that may be planted, as rings on the bed's plane.
      def rings
        shape = open_ground or raise Core::BadInput.new("Nothing of this ground may be planted: it lies on paths, " \
                                                        "buildings or kept ground.", field: :area)
        local(shape)
      end

      # What lies on it or beside it, for drawing: [[label, rings or lines]].
      def around
        keeping.select { |zone| near?(zone) }.map { |zone| [zone.label, zone.kind, local(zone.shape)] }
      end

      private

      def origin
        @origin ||= begin
          west, south, = @ground.bounds
          @ground.plane.point(west, south).map(&:floor)
        end
      end

      def open_ground
        keeping.select { |zone| near?(zone) }.reduce(@ground) do |left, zone|
          left && Core::Survey::Overlay.difference(left, kept(zone))
        end
      end

      # Zones on which nothing is planted; water only where what is planted does not stand in it.
      def keeping
        @keeping ||= @patch.property.zones.select do |zone|
          zone.nature.unplanted_m && !(zone.kind == "water" && @plan.moisture == "water")
        end
      end

      def near?(zone)
        west, south, east, north = @patch.ground.bounds
        w, s, e, n = Surroundings.box(zone, 10)
        w <= east && e >= west && s <= north && n >= south
      end

      def kept(zone)
        wide = zone.nature.unplanted_m
        wide = [wide, BLUNT].max unless zone.shape.kind == "polygon"
        wide.positive? ? Core::Survey::Overlay.buffer(zone.shape, wide) : zone.shape
      end

      # Rings or lines of a shape on the bed's plane.
      def local(shape)
        lists = { "Polygon" => 0, "LineString" => -1, "Point" => -2, "MultiPoint" => -1 }
        depth = lists.fetch(shape.geometry["type"], shape.kind == "line" ? 0 : 1)
        coordinates = shape.geometry["coordinates"]
        rings = case depth
                when -2 then [[coordinates]]
                when -1 then [coordinates]
                when 0 then coordinates
                else coordinates.flatten(1)
                end
        rings.map { |ring| ring.map { |lon, lat| @ground.plane.point(lon, lat).zip(origin).map { |a, b| a - b } } }
      end

      def round(rings) = rings.map { |ring| ring.map { |x, y| [x.round(ROUND), y.round(ROUND)] } }

      def layout(bed, grid, front)
        kinds = @plan.items.map do |item|
          native = item.native
          Core::Replant::Layout::Kind.new(key: native.key, share: item.share, spacing: item.spacing_m,
                                          height_cm: native.height_cm, grassy: native.grassy?)
        end
        Core::Replant::Layout.new(bed, kinds, grid:, front:, seed: @plan.id || 1)
      end
    end
  end
end
