# frozen_string_literal: true

module Thistle
  module Store
    # Reading: who may do what on a property, and what of the door each has.
    class Members
      # held: [Membership]; invited: has neither password nor passkey yet; seen_at: when a session of theirs was last in
      # use, nil for none.
      Row = Struct.new(:account, :held, :invited, :seen_at)

      def initialize(property)
        @property = property
      end

      def rows
        @rows ||= accounts.map do |account|
          Row.new(account, held[account.id], !ready.include?(account.id), seen[account.id])
        end
      end

      def accounts
        @accounts ||= Account.there.where(id: Membership.live.where(property_id: @property.id).select(:account_id))
                             .named.all
      end

      private

      def db = Sequel::Model.db

      def held
        @held ||= Membership.live.where(property_id: @property.id).order(:id).all.group_by(&:account_id)
      end

      def ready
        @ready ||= (db[:account_password_hashes].where(id: held.keys).select_map(:id) +
                    db[:account_webauthn_keys].where(account_id: held.keys).select_map(:account_id)).to_set
      end

      def seen
        @seen ||= db[:account_active_session_keys].where(account_id: held.keys).order(:last_use)
                                                  .select_hash(:account_id, :last_use) # the last of each
      end
    end
  end
end
