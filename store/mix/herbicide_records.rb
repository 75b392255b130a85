# frozen_string_literal: true

module Thistle
  module Store
    # Reading: the applications of herbicide on a property, against the rule that it keeps.
    class HerbicideRecords
      # A record with what the rule misses in it: missing [Symbol], due_on, keep_until; late: first kept too late.
      Row = Core::Value.define(:work, :application, :missing, :spot, :due_on, :keep_until, :late)

      LISTED, MOST = 100, 500
      BATCH = 500 # records that are read at a time

      attr_reader :rule

      def initialize(property)
        @property = property
        @rule = Core::Knowledge.shipped.records[property.record_rule]
      end

      # [Row] of a year, the newest first; of one applicator, where a name is given; all of them or so many.
      def rows(year: nil, person: nil, limit: nil)
        found = works
        found = found.where(done_on: Date.new(year, 1, 1)..Date.new(year, 12, 31)) if year
        found = found.where(applicator: person) if person
        found = found.limit(limit) if limit
        found.eager(patch: :property).all.map { |work| row(work) }
      end

      # Those that lack something and are not yet too old to matter, the one that is due first in front; so many.
      # due_from: none that was due before.
      def incomplete(today, due_from: nil)
        return [] unless rule

        since = due_from ? due_from - rule.write_within_days : today - (366 * rule.keep_years)
        lacking = works.where(done_on: since..today).where(Lacking.new(rule).condition).order(:done_on, :id)
        found = lacking.select_map(:id).each_slice(BATCH).lazy.flat_map do |ids|
          lacking.where(id: ids).eager(patch: :property).all.map { |work| row(work) }.select { |one| one.missing.any? }
        end
        found.first(MOST)
      end

      # Years and applicators that there are records of.
      def years = works.distinct.select_map(Sequel.function(:strftime, "%Y", :done_on)).map(&:to_i).sort.reverse
      def people = works.exclude(applicator: nil).unordered.distinct.select_order_map(:applicator)

      private

      def works
        Treatment.where(deleted_at: nil).exclude(active_key: nil)
                 .where(patch_id: Patch.where(property_id: @property.id).select(:id)).reverse(:done_on, :id)
      end

      # m² of all work with the same product on its day, of the property; nil where some of it is not known.
      def day_area(work)
        @areas ||= Hash.new do |all, (day, product)|
          areas = works.unordered.where(done_on: day, product_id: product).select_map(:area_m2)
          all[[day, product]] = areas.all? ? areas.sum : nil
        end
        @areas[[work.done_on, work.product_id]] if rule&.spot && work.product_id
      end

      def row(work)
        told = work.application(@labels ||= Labels.new).with(day_area: day_area(work))
        return Row.new(work:, application: told, missing: []) unless rule

        Row.new(work:, application: told, missing: rule.missing(told), spot: rule.spot?(told),
                due_on: rule.due_on(told), keep_until: rule.keep_until(told), late: rule.late?(told))
      end
    end
  end
end
