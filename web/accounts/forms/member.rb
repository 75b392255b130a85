# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Forms
        # Somebody is given a role on a property: whoever has no account yet is invited.
        class Member < Form
          DAYS = 7 # that an invitation is good for

          # What a person types.
          class Fields < Form::Contract
            params do
              required(:email).filled(:string, max_size?: 255)
              optional(:name).filled(:string, max_size?: 80)
              required(:role).filled(:string, included_in?: Core::Knowledge.shipped.policy.roles.keys)
              optional(:until_on).filled(:date)
            end

            rule(:email) { key.failure("is not a mail address, such as name@example.org") unless Address.fits?(value) }
            rule(:until_on) { key.failure("is over already") if value && value < today }
          end

          # Was an account made for them?
          def new? = @new

          # The account; nil, with complaints, where it cannot be.
          def store(property)
            return unless ok?

            Sequel::Model.db.transaction do
              account = Store::Account.at(values[:email]) || newcomer or return
              Store::Membership.give(account, property, values[:role], until_on: values[:until_on])
              account
            end
          end

          private

          def newcomer
            return failed(:name, "is needed: there is no account for this address yet") && nil unless values[:name]

            @new = true
            Newcomer.make(values[:email], values[:name])
          end
        end
      end
    end
  end
end
