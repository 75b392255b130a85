# frozen_string_literal: true

module Thistle
  module Store
    # Reading: ground that the label of what was used there keeps people or planting off. It stays with the ground: of a
    # part that was split off, of what took a sprayed patch in, of what lies there now.
    module ClosedGround
      # kind: :closed (nobody goes in) or :unplanted; until: the last day of it.
      Entry = Core::Value.define(:work, :kind, :until) do
        # Codes of the patches that lie on it today; of its own where none does.
        def codes
          here = GroundHistory.patches_on(work).map(&:code)
          here.empty? ? [work.patch.code] : here.sort
        end
      end

      SINCE = 3650 # days that a label may ask for

      module_function

      # [Entry] of properties, by their ids, that hold on a day or later; the first that ends in front.
      def of(property_ids, today)
        patches = Patch.where(property_id: property_ids).unordered.select(:id)
        works = Treatment.where(deleted_at: nil, patch_id: patches).where(asked_since(today))
        holding(works.eager(patch: :property).all, today)
      end

      # Those of some work.
      def holding(works, today)
        works.flat_map { |work| entries(work) }.select { |one| one.until >= today }.sort_by(&:until)
      end

      def entries(work)
        found = { closed: work.closed_until, unplanted: work.unplanted_until }.compact
        found.map { |kind, last| Entry.new(work:, kind:, until: last) }
      end

      # Records so young that the longest that a label of their product ever asked for may still hold.
      def asked_since(today)
        asked.group_by(&:last).map do |days, some|
          ids = some.map(&:first)
          (Sequel[product_id: ids] | Sequel[second_product_id: ids]) & (Sequel[:done_on] >= today - days)
        end.reduce(:|) || Sequel[product_id: 0]
      end

      # [[product id, days]] of labels, today's and those of before.
      def asked
        now = Product.exclude(reentry_h: nil, plant_back_days: nil).select_map(%i[id reentry_h plant_back_days])
        before = LabelVersion.all.map { |one| [one.product_id, one.label.reentry_h, one.label.plant_back_days] }
        [*now, *before].filter_map do |id, hours, days|
          longest = [(hours.to_f / 24).ceil, days.to_f.ceil].max
          [id, longest] if longest.positive?
        end
      end
      private_class_method :entries, :asked
    end
  end
end
