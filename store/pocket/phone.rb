# frozen_string_literal: true

require "digest"

module Thistle
  module Store
    # Model: a phone that carries records along. It is known by a key that it made and keeps; here lies its digest.
    class Phone < Sequel::Model(:phones)
      KEY = /\A\h{32}\z/

      one_to_many :held, class: "Thistle::Store::HeldRecord"

      dataset_module do
        def standing = where(cut_off_at: nil)
        def newest = reverse(:seen_at, :id)
        def of(account_id) = where(account_id:)
      end

      class << self
        # The phone of a key; nil for none.
        def at(key) = KEY.match?(key.to_s) ? first(digest: Digest::SHA256.hexdigest(key)) : nil

        # The phone of a key, in the hands of an account: made known where it is not, and noted as seen. One that was
        # cut off stays so.
        def seen(key, account_id, told)
          raise Core::BadInput.new("That is no phone's key.", field: :phone) unless KEY.match?(key.to_s)

          now, told = Time.now.utc, told.to_s.scrub[0, 200]
          known = at(key)
          return create(digest: Digest::SHA256.hexdigest(key), account_id:, told:, seen_at: now) unless known
          return known if known.cut_off?

          known.update(account_id:, told:, seen_at: now)
        end
      end

      def cut_off? = !cut_off_at.nil?

      # Emptied at its next contact; nothing that it still holds is taken.
      def cut_off = update(cut_off_at: Time.now.utc)
      def give_back = update(cut_off_at: nil)
    end
  end
end
