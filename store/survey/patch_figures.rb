# frozen_string_literal: true

module Thistle
  module Store
    # Process: what the records of a patch say of its name and of how much stands there, settled again after one of them
    # was corrected or taken back.
    class PatchFigures
      AMOUNTS = Observation::AMOUNTS

      def initialize(patch)
        @patch = patch
      end

      # The last settled name, else the last that was told.
      def follow_name
        seen = @patch.history.of(:observation)
        named = seen.select(&:plant_key).reverse
        told = named.find(&:settled) || named.first
        @patch.update(plant_key: told.plant_key, group_key: told.group_key) if told
      end

      # The cover that looks at what came back say; where no look is left that says one, as it was before the first.
      def follow_cover
        said = @patch.checks_dataset.exclude(cover_class: nil).order(:checked_on, :id).last
        return @patch.update(cover_class: said.cover_class, cover_percent: nil) if said && said.checked_on >= since

        first = Check.where(patch_id: @patch.id).exclude(cover_class: nil).order(:id).first
        @patch.update(cover_class: first.cover_before) if first && said.nil?
      end

      # How much stands there as the last sight says; where no sight is left that says so, as it was before the first.
      def follow_amounts
        last = @patch.observations_dataset.all.reverse.find(&:amounts?)
        return if last && last.seen_on < since && last.seen_on < @patch.observations_dataset.max(:seen_on)

        told = last ? last.values.slice(*AMOUNTS) : before_sights or return
        @patch.set(told)
        @patch.stems = last.stems if last&.stems
        count(told[:stems_by_size])
        @patch.save_changes
      end

      private

      def since = @patch.shape_from || @patch.seen_on

      def count(stems_by_size)
        amount = stems_by_size && Core::Survey::Amount.new(stems: JSON.parse(stems_by_size))
        return unless amount&.stem_count

        @patch.set(stems: amount.stem_count.first, stem_size: amount.stem_size || @patch.stem_size)
      end

      # What the journal of changes says of it before it was first looked at again.
      def before_sights
        seen = Observation.where(patch_id: @patch.id).exclude(deleted_at: nil).order(:id).all.find(&:amounts?) or return
        facts = Change.where(patch_id: @patch.id).order(:id).select_map(:undo).map { |text| JSON.parse(text) }
        made = facts.find { |fact| fact.dig("made", "observations").include?(seen.id) } or return
        made.dig("before", @patch.id.to_s).transform_keys(&:to_sym).slice(*AMOUNTS, :stems, :stem_size)
      end
    end
  end
end
