# frozen_string_literal: true

module Thistle
  module Store
    # Ground that is not a patch: boundary, trail, water, building, contour.
    class Zone < Sequel::Model(:zones)
      many_to_one :property, class: "Thistle::Store::Property"

      KINDS = %w[boundary trail water building contour].freeze

      def shape = @shape ||= Core::Survey::Shape.stored(geometry)
    end
  end
end
