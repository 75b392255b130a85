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

      WITH_ROLES = <<~SQL.tr("\n", " ").freeze
        SELECT accounts.*, (SELECT json_group_array(json_array(property_id, role)) FROM memberships
                            WHERE account_id = accounts.id AND ended_at IS NULL
                              AND (until_on IS NULL OR until_on >= ?)) AS held
        FROM accounts WHERE id = ? AND status_id != ?
      SQL
      private_constant :WITH_ROLES

      # Who is there, with their roles of the day, by one question, since every request asks it; nil for nobody.
      def self.at_hand(id, today)
        found = with_sql(WITH_ROLES, today, id, CLOSED).all.first
        found&.tap { |account| account.roles_of_the_day(account.values.delete(:held)) }
      end

      # Their roles that have not run out: {property id => [role]}.
      def roles(today)
        @roles || grouped(Membership.standing(today).where(account_id: id).select_map(%i[property_id role]))
      end

      def roles_of_the_day(text)
        @roles = grouped(JSON.parse(text))
      end

      # What they hold that has not run out: [Membership].
      def held(today) = Membership.standing(today).where(account_id: id).all

      private

      def grouped(held) = held.group_by(&:first).transform_values { |some| some.map(&:last) }
    end
  end
end
