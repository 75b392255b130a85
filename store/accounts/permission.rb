# frozen_string_literal: true

module Thistle
  module Store
    # Model: a landowner lets people work on a property, between two days, with or without herbicide.
    class Permission < Sequel::Model(:permissions)
      many_to_one :property, class: "Thistle::Store::Property"

      include Live

      dataset_module do
        def standing(today) = live.where { (from_on <= today) & (until_on >= today) }
        def newest = reverse(:until_on, :id)
      end

      # The one that stands on a property on a day; one that allows herbicide goes before one that does not.
      def self.on(property, today)
        standing(today).where(property_id: property.id).reverse(:herbicide, :until_on).first
      end

      def take_back = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)
    end
  end
end
