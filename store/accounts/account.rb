# frozen_string_literal: true

module Thistle
  module Store
    # Model: somebody who may sign in. Nothing but a name and an address is asked of them; who they are on a list
    # of people stands there (people.account_id), a person of each group. A keeper answers for the whole copy.
    class Account < Sequel::Model(:accounts)
      OPEN, CLOSED = 2, 3 # Rodauth's status

      DEMO = "demo" # a setting: this copy shows itself, nobody signs in

      one_to_many :people, class: "Thistle::Store::Person"
      one_to_many :memberships, class: "Thistle::Store::Membership", conditions: { ended_at: nil }

      dataset_module do
        def there = exclude(status_id: CLOSED)
        def named = order(Sequel.function(:lower, :name), :id)
      end

      # Has this copy a door? Without accounts nobody signs in: one person, this machine.
      def self.door? = !there.empty?

      def self.at(email) = there.first(email: email.to_s.strip.downcase)

      # Who they are on the list of the group at hand; nil for nobody.
      def person = Person.here.first(account_id: id)
      def person_ids = people_dataset.select_map(:id)

      # From now on they are this person of the group; nil: nobody there.
      def is(person)
        db.transaction do
          Person.here.where(account_id: id).update(account_id: nil)
          person&.update(account_id: id)
        end
      end

      # Their roles that have not run out: {property id => [role]}. Every request asks: rows alone.
      def roles(today)
        Membership.standing(today).where(account_id: id).select_map(%i[property_id role])
                  .group_by(&:first).transform_values { |held| held.map(&:last) }
      end

      # What they hold that has not run out: [Membership].
      def held(today) = Membership.standing(today).where(account_id: id).all
    end
  end
end
