# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Forms
        # A link for a guest: what it shows, for whom, until when.
        class Guest < Form
          LONGEST = 366 # days

          # What a person types.
          class Fields < Form::Contract
            params do
              required(:kind).filled(:string, included_in?: Store::GuestLink::KINDS.keys)
              optional(:record).filled(:integer)
              required(:for_whom).filled(:string, max_size?: 120)
              required(:until_on).filled(:date)
            end

            rule(:until_on) do
              key.failure("is over already") if value < today
              key.failure("is more than a year away") if value > today + LONGEST
            end
          end

          RECORDS = { "sheet" => :sheet, "plan" => :land_plan }.freeze

          # The key of the new link; nil, with complaints.
          def store(property)
            kind = RECORDS[values[:kind]]
            if kind && (values[:record].nil? || Store::Belongs.property_id(kind, values[:record]) != property.id)
              failed(:record, "is the number of #{Store::GuestLink::KINDS[values[:kind]]} of this property")
            end
            return unless ok?

            Store::GuestLink.make(property, kind: values[:kind], for_whom: values[:for_whom],
                                            until_on: values[:until_on], record_id: kind && values[:record]).last
          end
        end
      end
    end
  end
end
