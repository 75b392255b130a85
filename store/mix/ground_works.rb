# frozen_string_literal: true

module Thistle
  module Store
    # Reading: work with herbicide that lies on a patch's ground, whoever's it was: what it was parted from, what was
    # merged into it, what lay there before it was drawn anew. Each record counts with its ground as it was on its day.
    class GroundWorks
      def initialize(patch)
        @patch, @ground = patch, patch.ground
      end

      # [[Treatment, ground on its day]] between two days, the oldest first; where either has no ground, what its own
      # story tells, with nil.
      def between(days, except: nil)
        return of_story(days, except) unless @ground

        works = Treatment.where(deleted_at: nil, done_on: days, patch_id: near(days)).exclude(active_key: nil)
        works.exclude(id: except || 0).order(:done_on, :id).all.filter_map do |work|
          ground = ground_of(work)
          [work, ground] if ground ? meets?(ground) : told.any? { |one| one.id == work.id }
        end
      end

      # Live patches on whose ground a record lies today.
      def self.patches_on(work)
        ground = work.patch.ground_of(work.patch.shape_on(work.done_on))
        live = Patch.live.where(property_id: work.patch.property_id)
        return live.where(id: work.patch.kin.map(&:id)).all unless ground

        live.within(ground.bounds).all.select do |one|
          one.ground && Core::Survey::Overlay.intersection(one.ground, ground)
        end
      end

      private

      def of_story(days, except)
        told.select { |work| days.cover?(work.done_on) && work.id != except }.map { |work| [work, nil] }
      end

      # Records with herbicide of its own story: of what it was parted from until then, and of what it took in.
      def told = @told ||= @patch.history.map(&:last).grep(Treatment).select(&:active_key)

      # Ids of patches that lie near it now, closed and merged ones too, or had another shape in those days.
      def near(days)
        own = Patch.where(property_id: @patch.property_id).where(Sequel[deleted_at: nil] | ~Sequel[merged_into_id: nil])
        box = [@patch.west, @patch.south, @patch.east, @patch.north]
        moved = PatchShape.where { to_on > days.begin }.select(:patch_id)
        [@patch.id, *told.map(&:patch_id), *own.within(box).select_map(:id), *own.where(id: moved).select_map(:id)].uniq
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
