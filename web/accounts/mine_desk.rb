# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # One's own account: roles, how one signs in, where one is signed in.
      class MineDesk
        attr_reader :account

        def initialize(account, today)
          @account, @today = account, today
        end

        # [[property's name, role's key, until]]
        def roles
          names = Store::Property.select_hash(:id, :name)
          account.held(@today).map { |one| [names.fetch(one.property_id), one.role, one.until_on] }
        end

        # {role's key => [[property's name, until]]}
        def places
          roles.group_by { |_, role, _| role }.transform_values { |all| all.map { |one| one.values_at(0, 2) } }
        end

        # Where a session is, as far as a browser tells: a phone or a computer.
        def kind_of(session) = session[:told].to_s.match?(/mobile|phone|tablet/i) ? "A phone" : "A computer"

        def password? = db[:account_password_hashes].where(id: account.id).any?
        def passkeys = db[:account_webauthn_keys].where(account_id: account.id).order(:last_use).all
        def codes? = db[:account_otp_keys].where(id: account.id).any?
        def recovery_codes = db[:account_recovery_codes].where(id: account.id).count

        # Where one is signed in, the latest first: rows with :session_id, :told, :last_use.
        def sessions = sessions_of.reverse(:last_use).all

        # One session by its id, or with "" all but this one. mine: the door, which knows this one.
        def end_sessions(id, mine:)
          return sessions_of.where(session_id: id).delete unless id.empty?

          db[:account_remember_keys].where(id: account.id).delete
          mine ? mine.remove_all_active_sessions_except_current : sessions_of.delete
        end

        private

        def db = Sequel::Model.db
        def sessions_of = db[:account_active_session_keys].where(account_id: account.id)
      end
    end
  end
end
