# frozen_string_literal: true

module Thistle
  module Store
    # Model: a rule that a steward added for a property.
    class LocalRule < Sequel::Model(:local_rules)
      many_to_one :property, class: "Thistle::Store::Property"
      many_to_one :zone, class: "Thistle::Store::Zone"

      include Live

      def to_core
        Core::Decide::LocalRule.new(id:, about:, zone: zone_id, zone_name: zone&.name, plant: plant_key, from: from_md,
                                    to: to_md, text: reason,
                                    person:, said_on:)
      end
    end
  end
end
