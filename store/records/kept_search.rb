# frozen_string_literal: true

module Thistle
  module Store
    # Model: a search that somebody kept under a name; asked: the query of its address.
    class KeptSearch < Sequel::Model(:kept_searches)
      include Live

      MOST = 100 # of them at once

      # Keeps the query of an address under a name, for an account; nil where there are MOST already.
      def self.keep(name, asked, account_id:)
        create(name:, asked:, account_id:, created_at: Time.now.utc) if live.where(account_id:).count < MOST
      end

      def self.named(account_id) = live.where(account_id:).order(Sequel.function(:lower, :name), :id).all

      def take_back = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)
    end
  end
end
