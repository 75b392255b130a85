# frozen_string_literal: true

require "digest"
require "securerandom"

module Thistle
  module Store
    # Model: a link that lets somebody without an account see one thing until a day. The key in it is shown once; the
    # file keeps what it hashes to, so that a copy of the file opens nothing.
    class GuestLink < Sequel::Model(:guest_links)
      many_to_one :property, class: "Thistle::Store::Property"

      KINDS = { "sheet" => "a sheet for a specialist", "plan" => "a management plan",
                "calendar" => "the calendar" }.freeze

      dataset_module do
        def live = where(ended_at: nil)
        def standing(today) = live.where { until_on >= today }
        def newest = reverse(:id)
      end

      # [link, key] of a new one.
      def self.make(property, kind:, for_whom:, until_on:, record_id: nil)
        key = SecureRandom.urlsafe_base64(24)
        [create(property_id: property.id, kind:, record_id:, for_whom:, until_on:, digest: digest_of(key)), key]
      end

      # The one of this key that has not run out; nil for none.
      def self.by_key(key, today) = standing(today).first(digest: digest_of(key.to_s))

      def self.digest_of(key) = Digest::SHA256.hexdigest(key)

      def finish = update(ended_at: Time.now.utc)
      def said = KINDS.fetch(kind)
    end
  end
end
