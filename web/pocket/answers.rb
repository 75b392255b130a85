# frozen_string_literal: true

module Thistle
  module Web
    module Pocket
      # What a phone is answered, as plain data. docs/api.md describes each.
      module Answers
        module_function

        def phone(phone)
          { id: phone.id, told: phone.told, seen_at: phone.seen_at.iso8601, cut_off: phone.cut_off? }
        end

        # now: ms of this machine's clock. empty: what the phone holds of its account is to go: it was cut off, or the
        # account is closed. held: how many of its records stand here.
        def standing(who, phone, copy)
          { now: (Time.now.to_f * 1000).round, copy:, account: (who.account_id if who.signed_in?),
            name: who.account&.name, held: phone&.held_dataset&.count || 0,
            empty: !phone.nil? && (phone.cut_off? || gone?(phone.account_id)) }
        end

        def gone?(account_id)
          account_id != Store::Acting::HERE && Store::Account.there.where(id: account_id).empty?
        end
        private_class_method :gone?
      end
    end
  end
end
