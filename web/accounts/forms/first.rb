# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Forms
        # The first account of a copy: a name, an address, a password.
        class First < Form
          # What a person types.
          class Fields < Form::Contract
            params do
              required(:name).filled(:string, max_size?: 80)
              required(:email).filled(:string, max_size?: 255)
              required(:password).filled(:string, min_size?: 10, max_size?: 500)
              required(:password_again).filled(:string)
            end

            rule(:email) { key.failure("is not a mail address, such as name@example.org") unless Address.fits?(value) }
            rule(:password_again, :password) do
              key.failure("differs from the first") if values[:password] != values[:password_again]
            end
          end

          # Makes its owner the steward of all there is. Nil, with complaints, where it cannot be kept.
          def store
            return unless ok?

            Sequel::Model.db.transaction do
              account = Newcomer.make(values[:email], values[:name], keeper: true)
              Newcomer.password(account, values[:password])
              Store::Property.order(:id).all.each { |property| Store::Membership.give(account, property, "steward") }
              account
            end
          rescue Newcomer::Refused => e
            failed(:password, e.message) && nil
          end
        end
      end
    end
  end
end
