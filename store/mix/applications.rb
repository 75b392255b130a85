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
        @patch, @ground, @untold = patch, patch.ground, 0
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
        rows(year, except).each do |work|
          ground = ground_of(work)
          next unless ground && meets?(ground)

          poured = work.poured(@labels ||= Labels.new)
          next @untold += 1 unless poured.any? && poured.all? { |one| told?(one) }

          poured.each do |one|
            one.label.ingredients.each { |part| found[part.active.acid] << entry(work, ground, one.ml, part) }
          end
        end
        found
      end

      def told?(one) = one.ml && one.label.mixable? && one.label.ingredients.all?(&:acid_per_litre)

      def entry(work, ground, millilitres, part)
        Core::Mix::Ledger::Entry.new(id: work.id, on: work.done_on, ground:, treated_m2: work.area_m2,
                                     grams: millilitres / 1000 * part.acid_per_litre)
      end

      # Work with herbicide of that year on ground that may meet this one's.
      def rows(year, except)
        days = Date.new(year, 1, 1)..Date.new(year, 12, 31)
        Treatment.where(patch_id: near(days), deleted_at: nil, done_on: days)
                 .exclude(active_key: nil).exclude(id: except || 0).order(:done_on, :id).all
      end

      # Ids of patches that lie near it now, closed and merged ones too, or had another shape in those days.
      def near(days)
        own = Patch.where(property_id: @patch.property_id).where(Sequel[deleted_at: nil] | ~Sequel[merged_into_id: nil])
        box = [@patch.west, @patch.south, @patch.east, @patch.north]
        moved = PatchShape.where { to_on > days.begin }.select(:patch_id)
        [@patch.id, *own.within(box).select_map(:id), *own.where(id: moved).select_map(:id)].uniq
      end

      # The ground of a record's patch as it was on its day.
      def ground_of(work)
        @patches ||= Hash.new { |all, id| all[id] = id == @patch.id ? @patch : Patch[id] }
        @grounds ||= Hash.new { |all, (id, past)| all[[id, past]] = @patches[id].ground_of(past) }
        @grounds[[work.patch_id, @patches[work.patch_id].shape_on(work.done_on)]]
      end

      def meets?(ground)
        @meets ||= {}.compare_by_identity
        @meets.fetch(ground) { @meets[ground] = !Core::Survey::Overlay.intersection(@ground, ground).nil? }
      end
    end
  end
end
