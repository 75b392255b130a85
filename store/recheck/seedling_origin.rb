# frozen_string_literal: true

module Thistle
  module Store
    # Reading: where seedlings that were mapped around a patch come from: its own ground, patches of its plant around,
    # and whatever may stand beyond the boundary.
    class SeedlingOrigin
      Recheck = Core::Recheck
      BEYOND = "beyond the boundary"

      # points: [[lon, lat]] of seedlings.
      def initialize(patch, points, today)
        @patch, @points, @today = patch, points, today
        @read = PatchOutlook.new(patch, today)
      end

      # The Core::Recheck::Origin. Raises Core::BadInput (field :points).
      def origin
        @origin ||= Recheck::Origin.new(Recheck::SeedRain.new(@read.stages), sources)
      end

      # Years since seed last fell on the patch.
      def years = @years ||= [(@today - (@patch.presence.fell_on || @today)).to_i / 365.25, 0].max

      private

      def sources
        [own, *around, *beyond].map do |key, label, plants, spent, shape|
          distances = shapes.map { |seedling| shape.distance(seedling) }
          Recheck::Origin::Source.new(key:, label:, plants: plants.to_f, spent:, distances:)
        end
      end

      def shapes
        @shapes ||= @points.map { |point| Core::Survey::Shape.new({ "type" => "Point", "coordinates" => point }) }
      end

      # Seed in its own ground, as much as is left of it.
      def own
        left = @read.stages.range("bank").likely
        ["bank", "the old ground", @read.plants, [left**years, 1e-6].max, @patch.ground || @patch.shape]
      end

      def around
        @read.neighbours.map { |one, _| [one.code, one.code, @read.many(one), 1.0, one.ground || one.shape] }
      end

      # Nobody knows what stands there: as many as stood here.
      def beyond
        boundary = @patch.property.boundary or return []
        ring = boundary.shape.geometry["coordinates"].then { |rings| boundary.shape.kind == "polygon" ? rings : nil }
        line = ring && Core::Survey::Shape.new({ "type" => "LineString", "coordinates" => outer(ring) })
        line ? [["beyond", BEYOND, @read.plants, 1.0, line]] : []
      end

      def outer(rings) = rings.first.first.first.is_a?(Numeric) ? rings.first : rings.first.first
    end
  end
end
