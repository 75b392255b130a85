# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what of each acid lies on a patch's ground in a year, from records that name a product whose label's
    # grams are known; patches that overlap it count where they do.
    class Applications
      # How many records of the year tell of no grams.
      attr_reader :untold

      # patch with ground; a record can be left out.
      def initialize(patch, year, except: nil)
        @patch, @ground, @untold = patch, patch.ground, 0
        @ledgers = entries(year, except).transform_values { |some| Core::Mix::Ledger.new(some) }
      end

      # g on a hectare of an acid where it lies thickest on the patch; 0 where none does, nil without ground.
      def most(acid) = @ground && (@ledgers.key?(acid) ? @ledgers[acid].most(@ground) : 0.0)

      # {acid => g on a hectare}, for those that lie there.
      def totals = @ground ? @ledgers.keys.to_h { |acid| [acid, most(acid)] } : {}

      private

      def entries(year, except)
        return {} unless @ground

        found = Hash.new { |all, acid| all[acid] = [] }
        rows(year, except).each do |work|
          label = labels[work.product_id]
          told = label&.mixable? && label.ingredients.all?(&:acid_per_litre)
          next @untold += 1 unless told && work.product_ml

          label.ingredients.each { |one| found[one.active.acid] << entry(work, one) }
        end
        found
      end

      def entry(work, one)
        Core::Mix::Ledger::Entry.new(id: work.id, on: work.done_on, ground: grounds[work.patch_id],
                                     grams: work.product_ml / 1000 * one.acid_per_litre, treated_m2: work.area_m2)
      end

      # Work with herbicide of that year on patches whose ground meets this one's.
      def rows(year, except)
        Treatment.where(patch_id: grounds.keys, deleted_at: nil, done_on: Date.new(year, 1, 1)..Date.new(year, 12, 31))
                 .exclude(active_key: nil).exclude(id: except || 0).order(:done_on, :id).all
      end

      # {patch id => its ground}, itself and those that overlap it.
      def grounds
        @grounds ||= { @patch.id => @ground }.merge(Overlaps.with(@patch).to_h { |other, _| [other.id, other.ground] })
      end

      def labels = @labels ||= Product.all.to_h { |product| [product.id, product.label] }
    end
  end
end
