# frozen_string_literal: true

module Thistle
  module Store
    # Model: the shape that a patch had from one day until another.
    class PatchShape < Sequel::Model(:patch_shapes)
      many_to_one :patch, class: "Thistle::Store::Patch"

      def shape = Core::Survey::Shape.stored(geometry)
    end
  end
end
