# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what happened on a ground, whoever's patch it was then, and what of it holds today. The ground is a
    # patch's, with all that the patch was parted from and took in, or any shape on a property. A record lies on it
    # where the ground of the record's patch, as it was on the record's day, meets it; where either has no size, what
    # the lineage of the patch tells lies on it.
    class GroundHistory
      YOUNG = 3 * 365 # days in which a planting is young (memory)
      # Kinds of records: their model and the column of their day; what is not planted yet has none.
      KINDS = { observation: [Observation, :seen_on], check: [Check, :checked_on], treatment: [Treatment, :done_on],
                planting: [Planting, :done_on] }.freeze

      # What holds of a patch's ground.
      def self.of(patch) = new(patch.property_id, patch:)

      # What holds of a point, line or area (Core::Survey::Shape) on a property.
      def self.at(property, shape) = new(property.id, ground: shape)

      # Live patches on whose ground a record of a day lies today.
      def self.patches_on(record, day = record.on)
        ground = record.patch.ground_on(day)
        live = Patch.live.where(property_id: record.patch.property_id)
        return live.where(id: Lineage.new(record.patch).kin.map(&:id)).all unless ground

        live.within(ground.bounds).all.select { |one| one.ground && meet?(one.ground, ground) }
      end

      # Ids of live patches of properties, by their ids, on whose ground something young stands on a day.
      def self.planted_young(property_ids, today)
        patches = Patch.where(property_id: property_ids).unordered.select(:id)
        young = Planting.where(deleted_at: nil, done_on: (today - YOUNG)..today, patch_id: patches).eager(:patch).all
        young.uniq { |one| [one.patch_id, one.done_on] }.flat_map { |one| patches_on(one, one.done_on) }
             .to_set(&:id)
      end

      # Does one lie on the other? What is too tangled to be measured counts as if it did: a closed ground that is
      # missed is worse than one too many.
      def self.meet?(one, other)
        Core::Survey::Overlay.meet?(one, other)
      rescue Core::BadInput
        true
      end

      def initialize(property_id, patch: nil, ground: nil)
        @property_id, @patch, @ground = property_id, patch, ground
      end

      # The ground as a Shape; nil for a patch without a size.
      def ground = @ground ||= @patch&.ground

      # [[day, :observation, :check or :treatment, record]], the oldest first: of a patch what its lineage tells, of
      # other ground what lies there.
      def records(before: nil)
        return lineage.records(before:) if @patch

        @records ||= Lineage.in_order(%i[observation check treatment].flat_map do |kind|
          lying(kind).map { |record, _| [record.on, kind, record] }
        end)
      end

      # Those of one kind.
      def of(kind) = records.filter_map { |_, is, record| record if is == kind }

      # What was sprayed there and when: [[Treatment, ground on its day]], the oldest first, the ground nil where the
      # lineage tells it. days: a Range; except: the id of a record to leave out; only: a condition besides.
      def sprayed(days, except: nil, only: true)
        lying(:treatment, days:, only: Sequel.~(active_key: nil) & Sequel.~(id: except || 0) & only)
      end

      # What labels still keep off it: [ClosedGround::Entry], the first that ends in front.
      def closed(today)
        days = (today - ClosedGround::SINCE)..today
        ClosedGround.holding(sprayed(days, only: ClosedGround.asked_since(today)).map(&:first), today)
      end

      # The last day on which a label keeps people out (:closed) or planting off (:unplanted); nil where none does.
      def kept_until(kind, today) = closed(today).select { |one| one.kind == kind }.map(&:until).max

      # What stays in its soil, where labels do not say: [Core::Mix::Wait].
      def soil_waits(today) = SoilWaits.of(sprayed((today - SoilWaits::LONGEST)..today).map(&:first), today)

      # What was planted there: [Planting], the oldest first.
      def plantings = lying(:planting).map(&:first)

      # What was planned to be planted there: [PlantingPlan], taken back or not; of a patch alone.
      def plans = lineage.plans

      # What was found there last: [day, :observation or :check, record]; nil for nothing.
      def last_found = records.reverse.find { |_, kind, _| kind != :treatment }

      # When the trees of a climber were last freed; nil where nobody did.
      def freed_on = lineage.treatments.reverse.find { |work| work.removal.is?(:freeing) }&.done_on

      # What stands there on a day: of a patch (PatchStanding::There), nil without a plant.
      def there(today) = standing.there(today)
      def standing = @standing ||= PatchStanding.new(@patch)

      # What stands on any ground on a day: [[Patch, There]] of live patches, those without a plant left out.
      def standing_on(today)
        here = Patch.live.where(property_id: @property_id).within(ground.bounds).all
        here.select { |one| one.plant && self.class.meet?(one.ground || one.shape, ground) }
            .map { |one| [one, one.history.there(today)] }
      end

      private

      def lineage = @lineage ||= @patch && Lineage.new(@patch)

      # [[record, its ground on its day]] of a kind, the oldest first; days: a Range; only: a condition besides.
      def lying(kind, days: nil, only: true)
        model, day = KINDS.fetch(kind)
        rows = model.where(deleted_at: nil, patch_id: near(kind, days)).exclude(day => nil).where(only)
        rows = rows.where(day => days) if days
        rows.order(day, :id).all.filter_map do |record|
          on = ground && ground_of(record.patch_id, record[day])
          [record, on] if on ? meets?(on) : told(kind).any? { |one| one.id == record.id }
        end
      end

      # What the lineage tells of a kind.
      def told(kind)
        return [] unless lineage

        (@told ||= {})[kind] ||= kind == :planting ? lineage.plantings : of(kind)
      end

      # Ids of patches that lie near it now, closed and merged ones too, or lay there in those days.
      def near(kind, days)
        told = told(kind).map(&:patch_id)
        return told.uniq unless ground

        box = @patch ? @patch.values.values_at(:west, :south, :east, :north) : ground.bounds
        own = Patch.where(property_id: @property_id).where(Sequel[deleted_at: nil] | ~Sequel[merged_into_id: nil])
        moved = PatchShape.within(box).where(days ? Sequel[:to_on] > days.begin : true).select(:patch_id)
        [@patch&.id, *told, *own.within(box).select_map(:id), *own.where(id: moved).select_map(:id)].compact.uniq
      end

      # The ground of a patch as it was on a day.
      def ground_of(id, day)
        @patches ||= Hash.new { |all, one| all[one] = one == @patch&.id ? @patch : Patch[one] }
        @grounds ||= {}
        past = @patches[id].shape_on(day)
        @grounds.fetch([id, past&.id]) { @grounds[[id, past&.id]] = past&.ground || @patches[id].ground }
      end

      def meets?(other)
        @meets ||= {}.compare_by_identity
        @meets.fetch(other) { @meets[other] = self.class.meet?(ground, other) }
      end
    end
  end
end
