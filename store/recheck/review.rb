# frozen_string_literal: true

module Thistle
  module Store
    # Reading: a year's work on a property and what came of it: hours, what died by plant and method, visits that were
    # missed, patches that grew, methods to change.
    class Review
      Recheck = Core::Recheck
      SHOWN = 25 # lines of each list
      ASKED = 200 # patches that are looked at one by one
      LATE = 14 # days after its day that a visit counts as missed
      GREW = 1.05 # times its ground
      # hours: person-hours; treatments, patches: how many.
      Worked = Core::Value.define(:hours, :treatments, :patches, :litres)
      Spent = Core::Value.define(:patch, :hours, :treatments, :stems, :killed)
      # control: Recheck::Control of all stems that were looked at; planned: the handbook; hours: of that work; records:
      # ids of the treatments.
      Tried = Core::Value.define(:plant, :removal, :control, :planned, :hours, :records) do
        def per_stem = control.treated > control.alive ? hours / (control.treated - control.alive) : nil

        # :better than the handbook's best, :worse than its worst, or :as_planned.
        def verdict
          return :worse if control.high < planned["low"]

          control.low > planned["high"] ? :better : :as_planned
        end
      end

      attr_reader :property, :range

      # range: the days of the year.
      def initialize(property, range, today)
        @property, @range, @today = property, range, today
      end

      def worked
        hours, treatments, patches, mix = works.naked.select(*SUMS).first.values
        Worked.new(hours: hours.to_f, treatments:, patches:, litres: mix.to_f / 1000)
      end

      # [Spent] by patch, what took the most hours first.
      def by_patch
        rows = works.group(:patch_id).select(:patch_id, HOURS.as(:hours), Sequel.function(:count).*.as(:treatments),
                                             Sequel.function(:sum, :stems_done).as(:stems))
                    .reverse(:hours).limit(SHOWN).naked.all
        patches = Patch.where(id: rows.map { |row| row[:patch_id] }).as_hash(:id)
        rows.map do |row|
          Spent.new(patch: patches[row[:patch_id]], hours: row[:hours].to_f, treatments: row[:treatments],
                    stems: row[:stems], killed: killed[row[:patch_id]])
        end
      end

      # {patch id => stems that died} of what was looked at.
      def killed
        by_patch = judged.group_by { |row| row[:patch_id] }
        @killed ||= by_patch.transform_values { |rows| rows.sum { |row| row[:treated] - row[:alive] } }
      end

      # [Tried] by plant and method, the most stems first.
      def tried
        @tried ||= judged.group_by { |row| row.values_at(:plant_key, :method_key) }.map do |(plant, method), rows|
          removal = Core::Knowledge.shipped.removal(method)
          plant = Core::Knowledge.shipped.plant(plant)
          treated, alive = rows.sum { |row| row[:treated] }, rows.sum { |row| row[:alive] }
          Tried.new(plant:, removal:, control: Recheck::Control.of(treated:, alive:), planned: removal.kill(plant),
                    records: rows.map { |row| row[:work] }, hours: rows.sum { |row| row[:hours] * row[:crew_size] })
        end.sort_by { |one| [-one.control.treated, one.plant.name, one.removal.name] }
      end

      # How many visits were due, and those that were not made or too late: [number, [Task]].
      def missed
        due = Task.where(patch_id: property.patches_dataset.where(deleted_at: nil).select(:id), dropped_at: nil)
                  .where(due_on: range).where(Sequel[:due_on] < @today - LATE)
        too_late = Sequel[:done_on] > Sequel.function(:date, :due_on, "+#{LATE} days")
        late = due.where(Sequel.|({ done_on: nil }, too_late))
        [due.count, late.count, late.order(:due_on).limit(SHOWN).eager(:patch).all]
      end

      # [[patch, m² before, m² after]] of those whose ground grew in the year, the most first.
      def grew
        changed = PatchShape.where(to_on: range).select(:patch_id)
        patches = property.live_patches.unordered.where(id: changed).limit(ASKED).all
        found = patches.map { |patch| [patch, *ground(patch)] }
        found.select { |_, before, after| before&.positive? && after && after > before * GREW }
             .sort_by { |_, before, after| before - after }.first(SHOWN)
      end

      # [[patch, Removal]] whose method failed twice running: to be done otherwise.
      def change
        twice = works.group(:patch_id).select(:patch_id)
        patches = property.live_patches.unordered.where(id: twice, state: %w[hit regrowing]).limit(ASKED)
                          .eager(:treatments, :checks).all
        patches.filter_map { |patch| (removal = patch.failed_twice) && [patch, removal] }.first(SHOWN)
      end

      # {state => number} of patches as they stand.
      def states = property.live_patches.unordered.group_and_count(:state).as_hash(:state, :count)

      private

      HOURS = Sequel.function(:sum, Sequel[:hours] * Sequel[:crew_size])
      PATCHES = Sequel.function(:count, Sequel.lit("DISTINCT patch_id"))
      SUMS = [HOURS.as(:hours), Sequel.function(:count).*.as(:works), PATCHES.as(:patches),
              Sequel.function(:sum, :mix_ml).as(:mix)].freeze
      JUDGED = [Sequel[:treatments][:id].as(:work), Sequel[:treatments][:patch_id], :method_key,
                Sequel[:patches][:plant_key], :hours, :crew_size, Sequel[:treatments][:stems_done].as(:treated),
                Sequel[:checks][:resprouts].as(:alive)].freeze
      private_constant :HOURS, :PATCHES, :SUMS, :JUDGED

      def works
        Treatment.where(Sequel[:treatments][:deleted_at] => nil, Sequel[:treatments][:done_on] => range)
                 .where(Sequel[:treatments][:patch_id] => property.patches_dataset.where(deleted_at: nil).select(:id))
      end

      # The last look at each treatment of the year whose stems were counted.
      def judged
        @judged ||= begin
          counted = (Sequel[:treatments][:stems_done] >= 1) &
                    (Sequel[:checks][:resprouts] <= Sequel[:treatments][:stems_done])
          rows = works.join(:checks, { treatment_id: Sequel[:treatments][:id], Sequel[:checks][:deleted_at] => nil,
                                       left_out: false })
                      .join(:patches, id: Sequel[:treatments][:patch_id]).where(counted)
                      .exclude(Sequel[:patches][:plant_key] => nil)
                      .reverse(Sequel[:checks][:checked_on], Sequel[:checks][:id])
                      .select(*JUDGED).naked.all
          rows.uniq { |row| row[:work] }
        end
      end

      # [m² when the year began, when it ended] of a patch.
      def ground(patch)
        steps = Core::Survey::Growth.new(patch.versions).steps(@today)
        [range.first, range.last].map { |day| steps.reverse.find { |on, _| on <= day }&.at(1) }
      end
    end
  end
end
