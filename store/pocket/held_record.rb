# frozen_string_literal: true

module Thistle
  module Store
    # Model: a record that a phone sent and that stands here, by the key that the phone gave it.
    class HeldRecord < Sequel::Model(:held_records)
      unrestrict_primary_key
      many_to_one :phone, class: "Thistle::Store::Phone"

      KEY = /\A\h{8}-\h{4}-7\h{3}-[89ab]\h{3}-\h{12}\z/ # UUID, version 7
      PATCH = %r{\A/survey/patches/(\d+)\z}

      # The id of the patch that a record became; nil where it became none.
      def self.patch_id(key) = where(key:).get(:place).to_s[PATCH, 1]&.to_i

      # Of these keys, those that nothing here knows.
      def self.unknown(keys)
        keys.grep(KEY).each_slice(500).flat_map { |some| some - where(key: some).select_map(:key) }
      end
    end
  end
end
