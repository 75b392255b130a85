# frozen_string_literal: true

module Thistle
  module Store
    # Model: what the label of the product in use says of the weather, for one kind of work at a property.
    class Label < Sequel::Model(:labels)
      many_to_one :property, class: "Thistle::Store::Property"

      LIMITS = %i[wind_low wind_high gust temperature_low temperature_high rainfast_h].freeze

      # {kind => {limit => value}} of a property, as Core::Season::Limits#under takes it.
      def self.limits(property_id)
        where(property_id:).to_h { |label| [label.kind.to_sym, label.values.slice(*LIMITS).compact] }
                           .reject { |_, limits| limits.empty? }
      end

      # Keeps one kind's label; all fields empty takes it away.
      def self.keep(property, kind, product:, **limits)
        db.transaction do
          where(property_id: property.id, kind:).delete
          create(property_id: property.id, kind:, product:, **limits) if limits.any? { |_, value| value }
          property.year_changed
        end
      end
    end
  end
end
