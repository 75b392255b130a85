# frozen_string_literal: true

module Thistle
  module Store
    # Model: a place on a property where seed of a native may be gathered.
    class GatherPlace < Sequel::Model(:gather_places)
      many_to_one :property, class: "Thistle::Store::Property"

      include Live

      def native = Core::Knowledge.shipped.native(native_key)
      def position = [longitude, latitude]
    end
  end
end
