# frozen_string_literal: true

module Thistle
  module Store
    # Model: somebody who may sign in. Nothing but a name and an address is asked of them; `person_id` is who they are
    # on the list of people, if anybody said so. A keeper answers for the whole copy.
    class Account < Sequel::Model(:accounts)
      OPEN, CLOSED = 2, 3 # Rodauth's status

      DEMO = "demo" # a setting: this copy shows itself, nobody signs in

      many_to_one :person, class: "Thistle::Store::Person"
      one_to_many :memberships, class: "Thistle::Store::Membership", conditions: { ended_at: nil }

      dataset_module do
        def there = exclude(status_id: CLOSED)
        def named = order(Sequel.function(:lower, :name), :id)
      end

      # Has this copy a door? Without accounts nobody signs in: one person, this machine.
      def self.door? = !there.empty?

      def self.at(email) = there.first(email: email.to_s.strip.downcase)

      # What they hold that has not run out: [Membership].
      def held(today) = memberships_dataset.standing(today).all
    end
  end
end
