# frozen_string_literal: true

module Thistle
  module Store
    # Model: who did what, and when: a row of each change (triggers of migration 038), and what is no row, such as a
    # sign-in or a file that was taken out (`note`). It only grows.
    class Trail < Sequel::Model(:trail)
      many_to_one :account, class: "Thistle::Store::Account"

      # What is no row of a table: act and kind in words of the trail.
      def self.note(act, kind, account_id: Acting.account_id, **more)
        return unless account_id

        dataset.insert(at: Time.now.utc, account_id:, act:, kind: kind.to_s, **more)
      end

      # Did this account add the row, within so many days? A row of nobody's is nobody's own.
      def self.own?(table, row_id, account_id, days:)
        who, at = db[:trail].where(kind: table.to_s, row_id:, act: "added").reverse(:id).get(%i[account_id at])
        who == account_id && at > Time.now.utc - (days * 86_400)
      end
    end
  end
end
