# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Forms
        # A link for a guest: what it shows, for whom, until when.
        class Guest < Form
          LONGEST = 366 # days

          SHOWN = /\A(?:calendar|(?:sheet|plan)-\d{1,9})\z/ # a kind, and which one
          RECORDS = { "sheet" => :sheet, "plan" => :land_plan }.freeze

          # What a person chooses and types.
          class Fields < Form::Contract
            params do
              required(:shown).filled(:string, format?: SHOWN)
              required(:for_whom).filled(:string, max_size?: 120)
              required(:until_on).filled(:date)
            end

            rule(:until_on) do
              key.failure("is over already") if value < today
              key.failure("is more than a year away") if value > today + LONGEST
            end
          end

          # The new link with its key; nil, with complaints.
          def store(property)
            return unless ok?

            kind, id = values[:shown].split("-")
            record_id = id&.to_i
            if record_id && Store::Belongs.property_id(RECORDS.fetch(kind), record_id) != property.id
              return failed(:shown, "is not of this property") && nil
            end

            Store::GuestLink.make(property, kind:, record_id:, **values.slice(:for_whom, :until_on))
          end
        end
      end
    end
  end
end
