# frozen_string_literal: true

module Thistle
  module Store
    # Model: which product of the shelf is used for a kind of work on a property; its label goes before planning values.
    class InUse < Sequel::Model(:products_in_use)
      many_to_one :product, class: "Thistle::Store::Product"

      KINDS = { "foliar" => %w[foliar], "stem" => %w[cut_stump hack], "basal" => %w[basal] }.freeze
      LIMITS = %i[wind_low wind_high gust temperature_low temperature_high rainfast_h].freeze

      # {kind => Product} of a property.
      def self.products(property_id) = of_all([property_id]).fetch(property_id, {})

      # {property id => {kind => Product}}.
      def self.of_all(property_ids)
        where(property_id: property_ids).eager(:product).all.reject { |one| one.product.deleted_at }
                                        .group_by(&:property_id)
                                        .transform_values { |some| some.to_h { |one| [one.kind, one.product] } }
      end

      # The product in use on a property for a use that labels have, whose actives are known; nil where none is.
      def self.for(property, use)
        kind = KINDS.find { |_, uses| uses.include?(use) }&.first
        products(property.id)[kind]&.then { |product| product if product.label.mixable? }
      end

      # From now on this product is used for the kind of work; nil takes the choice away.
      def self.choose(property, kind, product)
        db.transaction do
          where(property_id: property.id, kind:).delete
          create(property_id: property.id, kind:, product_id: product.id) if product
          property.year_changed
        end
      end
    end
  end
end
