# frozen_string_literal: true

module Thistle
  module Store
    # Process: somebody leaves. The account goes with all that opens the door; records stay, under the name that they
    # were written with, or under a number.
    class Leaving
      # name: "name" keeps it, "number" puts a number in its place.
      def initialize(account, name:)
        @account, @as_number = account, name == "number"
      end

      # Raises Core::BadInput where something would have nobody to answer for it.
      def call
        db = Sequel::Model.db
        db.transaction do
          keepers = Account.there.where(keeper: true).exclude(id: @account.id)
          if @account.keeper && keepers.empty?
            raise Core::BadInput.new("Nobody else answers for this copy. Make somebody else its keeper first.",
                                     field: :base)
          end

          @account.memberships.each(&:take_away)
          DOOR.each { |table, column| db[table].where(column => @account.id).delete }
          number_records if @as_number
          @account.update(status_id: Account::CLOSED, ended_at: Time.now.utc, keeper: false,
                          email: "closed-#{@account.id}", **(@as_number ? { name: number } : {}))
        end
      end

      def number = "Account #{@account.id}"

      DOOR = { account_password_hashes: :id, account_login_failures: :id, account_lockouts: :id,
               account_password_reset_keys: :id, account_login_change_keys: :id,
               account_remember_keys: :id, account_active_session_keys: :account_id,
               account_otp_keys: :id, account_recovery_codes: :id, account_webauthn_user_ids: :id,
               account_webauthn_keys: :account_id }.freeze
      # Where a name was written as the sign of whoever decided.
      SIGNED = { amendments: :person, courses: :person, local_rules: :person, rule_settings: :person,
                 reports: :answered_by, sightings: :person }.freeze
      private_constant :SIGNED

      private

      # Not in records of herbicides: the law wants the applicator's name there.
      def number_records
        SIGNED.each { |table, column| Sequel::Model.db[table].where(column => @account.name).update(column => number) }
      end
    end
  end
end
