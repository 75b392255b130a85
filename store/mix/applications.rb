# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what of each acid lies on a patch's ground in a year, from records that name a product whose label's
    # grams are known; other patches count where their ground, as it was on the day, overlaps it.
    class Applications
      # How many records of the year tell of no grams.
      attr_reader :untold

      # patch with ground; a record can be left out.
      def initialize(patch, year, except: nil)
        @history, @ground, @untold = patch.history, patch.history.ground, 0
        @ledgers = entries(year, except).transform_values { |some| Core::Mix::Ledger.new(some) }
      end

      # g on a hectare of an acid where it lies thickest on the patch; 0 where none does, nil without ground.
      def most(acid) = @ground && (@ledgers.key?(acid) ? @ledgers[acid].most(@ground) : 0.0)

      # {acid => g on a hectare}, for those that lie there.
      def totals = @ground ? @ledgers.keys.to_h { |acid| [acid, most(acid)] } : {}

      # What lies on each piece of its ground of an acid, with the ground of other patches cut out of it:
      # [[g on a hectare, ids of those others]]. others: {patch id => ground}.
      def pieces(acid, others)
        marks = others.map do |id, ground|
          Core::Mix::Ledger::Entry.new(id: [:patch, id], ground:, grams: 0.0)
        end
        lying = @ledgers[acid]&.entries || []
        Core::Mix::Ledger.new(lying + marks).pieces(@ground).map do |piece|
          [piece.g_per_ha, piece.entries.map(&:id).grep(Array).map(&:last)]
        end
      end

      private

      def entries(year, except)
        return {} unless @ground

        found = Hash.new { |all, acid| all[acid] = [] }
        days = Date.new(year, 1, 1)..Date.new(year, 12, 31)
        @history.sprayed(days, except:).each do |work, ground|
          next unless ground

          poured = work.poured(@labels ||= Labels.new)
          next @untold += 1 unless poured.any? && poured.all? { |one| told?(one) }

          poured.each do |one|
            one.label.ingredients.each { |part| found[part.active.acid] << entry(work, ground, one.acid(part)) }
          end
        end
        found
      end

      def told?(one) = one.label.mixable? && one.label.ingredients.all? { |part| one.acid(part) }

      def entry(work, ground, grams)
        Core::Mix::Ledger::Entry.new(id: work.id, on: work.done_on, ground:, treated_m2: work.area_m2, grams:)
      end
    end
  end
end
