# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # This room's JSON.
      module Answers
        TRAIL = %i[at who act kind number which].freeze

        module_function

        def mine(desk)
          { name: desk.account.name, email: desk.account.email,
            roles: desk.roles.map { |place, role, until_on| { property: place, role:, until: until_on } } }
        end

        def members(members)
          members.rows.map do |row|
            { name: row.account.name, email: row.account.email, roles: row.held.map(&:role), invited: row.invited }
          end
        end

        def permission(one)
          { id: one.id, person: one.person, from_on: one.from_on, until_on: one.until_on, herbicide: one.herbicide,
            note: one.note }
        end

        def trail(desk)
          { trail: desk.rows.map { |row| TRAIL.zip(row).to_h } }
        end
      end
    end
  end
end
