# frozen_string_literal: true

module Thistle
  module Store
    # Model: what people said of a patch's ground for planting; one for a patch.
    class SiteSaid < Sequel::Model(:site_sheets)
      many_to_one :patch, class: "Thistle::Store::Patch"

      # {fact => what was said} of a patch.
      def self.of(patch) = JSON.parse(first(patch_id: patch.id)&.said || "{}", symbolize_names: true)

      # Keeps what is said now, in place of what was.
      def self.keep(patch, facts)
        dataset.insert_conflict(target: :patch_id, update: { said: Sequel[:excluded][:said] })
               .insert(patch_id: patch.id, said: JSON.generate(facts), created_at: Time.now)
      end
    end
  end
end
