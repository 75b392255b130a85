# frozen_string_literal: true

module Thistle
  module Store
    # Model: what goes back into a patch, and when.
    class Planting < Sequel::Model(:plantings)
      many_to_one :patch, class: "Thistle::Store::Patch"
      include Amendable

      def on = from_on

      def native = Core::Knowledge.shipped.native(native_key)
    end
  end
end
