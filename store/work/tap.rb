# frozen_string_literal: true

module Thistle
  module Store
    # Model: what somebody tapped in the field: began, ended, so many stems of a size, seed, one more found. Kept once,
    # however often it is sent.
    class Tap < Sequel::Model(:taps)
      many_to_one :work_day, class: "Thistle::Store::WorkDay"

      KINDS = %w[start stop plants stems people seed treated found note].freeze

      dataset_module { def live = where(taken_back_at: nil) }

      # Keeps it unless it is kept already. at: when it was tapped, by the clock where it was.
      def self.keep(work_day, key:, kind:, at:, patch_id: nil, what: nil, amount: nil)
        dataset.insert_conflict(target: :key)
               .insert(work_day_id: work_day.id, patch_id:, key:, kind:, what:, amount:, at:, created_at: Time.now.utc)
        first(key:)
      end
    end
  end
end
