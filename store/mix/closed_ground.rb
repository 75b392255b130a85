# frozen_string_literal: true

module Thistle
  module Store
    # Reading: ground that the label of what was used there keeps people or planting off.
    module ClosedGround
      # kind: :closed (nobody goes in) or :unplanted; until: the last day of it.
      Entry = Core::Value.define(:work, :kind, :until)

      SINCE = 3650 # days that a label may ask for
      MOST = 200 # records that are looked at, the newest

      module_function

      # [Entry] of properties, by their ids, that hold on a day or later; the first that ends in front.
      def of(property_ids, today)
        patches = Patch.live.where(property_id: property_ids).unordered.select(:id)
        works = Treatment.where(deleted_at: nil, patch_id: patches, product_id: asking)
                         .or(Sequel[deleted_at: nil, patch_id: patches, second_product_id: asking])
        works.where(Sequel[:done_on] >= today - SINCE).eager(patch: :property).reverse(:id).limit(MOST).all
             .flat_map { |work| entries(work) }.select { |one| one.until >= today }.sort_by(&:until)
      end

      def entries(work)
        found = { closed: work.closed_until, unplanted: work.unplanted_until }.compact
        found.map { |kind, last| Entry.new(work:, kind:, until: last) }
      end

      # Products whose label ever asked for either.
      def asking
        asks = Product.exclude(reentry_h: nil, plant_back_days: nil).select(:id)
        Product.where(id: asks).or(id: LabelVersion.select(:product_id)).select(:id)
      end
      private_class_method :entries, :asking
    end
  end
end
