# frozen_string_literal: true

module Thistle
  module Store
    # Model: somebody watered what was planted on a patch.
    class Watering < Sequel::Model(:waterings)
      many_to_one :patch, class: "Thistle::Store::Patch"

      include Live

      # A day's watering, once however often it is said.
      def self.done(patch, date)
        dataset.insert_conflict(target: %i[patch_id watered_on], update: { deleted_at: nil })
               .insert(patch_id: patch.id, watered_on: date, created_at: Time.now)
      end
    end
  end
end
