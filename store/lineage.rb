# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what a patch was parted from, what it took in, and the records that it has from them: of its whole those
    # until the parting, of what was merged into it all.
    class Lineage
      IN_ORDER = %i[observation check treatment planting].freeze # of one day

      def initialize(patch)
        @patch = patch
      end

      # Rows [day, kind, record], the oldest first.
      def self.in_order(rows) = rows.sort_by { |day, kind, record| [day, IN_ORDER.index(kind), record.id] }

      # [[day, :observation, :check or :treatment, record]], the oldest first; before: a time, for what was written down
      # and taken in by then. A part that came back to its whole is in it once.
      def records(before: nil) = in_order(trace(before, &:own_records))

      # [Planting] that stand in the ground, the oldest first.
      def plantings
        in_order(trace(nil) { |one| one.plantings.select(&:done_on).map { |row| [row.done_on, :planting, row] } })
          .map(&:last)
      end

      # [PlantingPlan] of its ground, taken back or not.
      def plans
        trace(nil) { |one| one.plans.map { |plan| [plan.made_on, :plan, plan] } }.map(&:last).sort_by(&:id)
      end

      # Treatments alone, the oldest first. Most ground has no lineage, and its own say it without reading the rest.
      def treatments
        return @patch.treatments if alone?

        # A list read a few columns of the patch only.
        Patch[@patch.id].history.of(:treatment)
      end

      # Was it neither parted from another nor took one in?
      def alone? = @patch.values.fetch(:lineage) { @patch.parent_id || @patch.absorbed.any? ? 1 : 0 }.zero?

      # Itself, what was parted from it, and what took it in: whose history a record of this patch belongs to.
      def kin
        found = [@patch]
        found.each do |patch|
          related = Patch.where(parent_id: patch.id).or(id: patch.merged_into_id)
          found.concat(related.exclude(id: found.map(&:id)).all)
        end
        found.reject(&:deleted_at)
      end

      protected

      # Rows [day, kind, record], in no order, of every patch that it comes from, as the block reads one's own.
      def trace(before, &own)
        all = (of_whole(&own) + yield(@patch) + taken_in(before, &own)).uniq { |_, kind, record| [kind, record.id] }
        before ? all.select { |_, _, record| record.created_at <= before } : all
      end

      private

      def in_order(rows) = Lineage.in_order(rows)

      def of_whole(&)
        return [] unless @patch.parent

        Lineage.new(@patch.parent).trace(@patch.created_at, &).select { |day, _, _| day <= @patch.parted_on }
      end

      def taken_in(before, &)
        known = @patch.absorbed.select { |one| before.nil? || one.deleted_at <= before }
        known.flat_map { |one| Lineage.new(one).trace(nil, &) }
      end
    end
  end
end
