# frozen_string_literal: true

module Thistle
  module Store
    # Model: a role that an account has on a property, until a day or for good.
    class Membership < Sequel::Model(:memberships)
      many_to_one :account, class: "Thistle::Store::Account"
      many_to_one :property, class: "Thistle::Store::Property"

      dataset_module do
        def live = where(ended_at: nil)
        def standing(today) = live.where { (until_on =~ nil) | (until_on >= today) }
      end

      # Gives a role; where it is held already, until another day.
      def self.give(account, property, role, until_on: nil)
        known = live.first(account_id: account.id, property_id: property.id, role:)
        return known.update(until_on:) if known

        create(account_id: account.id, property_id: property.id, role:, until_on:)
      end

      # Raises Core::BadInput where nobody would answer for the property any more.
      def take_away
        db.transaction do
          others = self.class.live.where(property_id:, role: "steward").exclude(id:)
                       .where(account_id: Account.there.select(:id))
          if role == "steward" && others.empty?
            raise Core::BadInput.new("#{property.name} would have no steward. Name another first.", field: :role)
          end

          update(ended_at: Time.now.utc)
        end
      end
    end
  end
end
