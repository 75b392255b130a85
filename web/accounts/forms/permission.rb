# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Forms
        # A landowner's permission: from when, until when, with herbicide or without.
        class Permission < Form
          LONGEST = 5 * 366 # days

          # What a person types.
          class Fields < Form::Contract
            params do
              required(:person).filled(:string, max_size?: 120)
              required(:from_on).filled(:date)
              required(:until_on).filled(:date)
              required(:herbicide).filled(:string, included_in?: %w[yes no])
              optional(:note).filled(:string, max_size?: 1000)
            end

            rule(:until_on, :from_on) do
              first, last = values.to_h.values_at(:from_on, :until_on)
              key(:until_on).failure("is before it begins") if last < first
              key(:until_on).failure("is more than five years away") if last > first + LONGEST
            end
          end

          def store(property, account)
            return unless ok?

            told = values.slice(:person, :from_on, :until_on, :note)
            Store::Permission.create(**told, property_id: property.id, account_id: account&.id,
                                             herbicide: values[:herbicide] == "yes")
          end
        end
      end
    end
  end
end
