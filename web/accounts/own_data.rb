# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # Everything that is kept about somebody, as one file: the account, the person, what they said and wrote.
      class OwnData
        def initialize(account)
          @account = account
        end

        def to_h
          { account: @account.values.slice(:id, :name, :email, :created_at), roles:,
            people: people.map(&:values), sessions:, comments:,
            records: records.map { |one| one.values.slice(:id, :patch_id, :done_on, :method_key, :hours) }, trail: }
        end

        private

        def db = Sequel::Model.db

        def roles
          @account.memberships.map { |one| one.values.slice(:property_id, :role, :until_on, :created_at) }
        end

        def people = @account.people
        def records = people.flat_map { |one| one.records.all }.uniq(&:id)
        def sessions = db[:account_active_session_keys].where(account_id: @account.id).select(:told, :last_use).all
        def comments = Store::Comment.where(account_id: @account.id).select_map(%i[patch_id body created_at])

        def trail
          Store::Trail.where(account_id: @account.id).order(:id).select_map(%i[at act kind row_id property_id])
        end
      end
    end
  end
end
