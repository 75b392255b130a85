# frozen_string_literal: true

module Thistle
  module Store
    # Model: what somebody says of a patch, or of a visit to it. Whoever is named with @ finds it under what is new.
    class Comment < Sequel::Model(:comments)
      many_to_one :account, class: "Thistle::Store::Account"
      many_to_one :patch, class: "Thistle::Store::Patch"
      many_to_one :task, class: "Thistle::Store::Task"

      include Live

      LONGEST = 2000 # letters

      dataset_module do
        # Without what is for staff alone.
        def open_to_all = where(for_staff: false)

        def mentioning(account)
          where(Sequel.lit("EXISTS (SELECT 1 FROM json_each(mentions) WHERE value = ?)", account.id))
        end
      end

      # accounts: those who may be named; task_id: the visit that it is about, if it is about one.
      def self.say(patch, account, body, accounts:, for_staff: false, task_id: nil)
        named = accounts.select { |one| body.downcase.include?("@#{one.name.downcase}") }
        create(property_id: patch.property_id, patch_id: patch.id, task_id:, account_id: account&.id, body:, for_staff:,
               mentions: JSON.generate(named.map(&:id)))
      end

      def said_by = account&.name || "this machine"
      def take_back = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)
    end
  end
end
