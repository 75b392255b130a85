# frozen_string_literal: true

module Thistle
  module Store
    # Model: the shape that a patch had from one day until another.
    class PatchShape < Sequel::Model(:patch_shapes)
      many_to_one :patch, class: "Thistle::Store::Patch"

      dataset_module do
        def within(bounds) = where(id: Extents.meeting(:past_extents, bounds))
      end

      # Measures those that were written before extents were kept.
      def self.settle_all = where(west: nil).eager(:patch).all.each(&:measure)

      def shape = Core::Survey::Shape.stored(geometry)

      # The ground that it covered, as a Shape. A line or a point without a size then counts with the one that its patch
      # has today; nil without any.
      def ground = Core::Survey::Overlay.ground(shape, width: size[:width_m], radius: size[:radius_m])

      # Its extent, kept for the tree.
      def measure = this.update(extent)

      def before_create
        set(extent)
        super
      end

      private

      def extent = Patch.extent(shape, **size)
      def size = { width_m: width_m || patch.width_m, radius_m: radius_m || patch.radius_m }
    end
  end
end
