# frozen_string_literal: true

module Thistle
  module Store
    # Reading: open visits of a property as rounds, and what one that was missed has cost by now.
    class VisitsAhead
      Recheck = Core::Recheck
      MOST, DAYS = 400, 35 # visits, and days ahead, that rounds are made of
      EARLY = 14 # days before its day that a visit still is right, and never before half of its wait (memory)
      LATE = 4 # days late from which its cost is said
      READ = %i[observations treatments checks plantings absorbed parent].freeze # of a late patch
      # days late; seeded_on: when its plant's seed ripened since it was due, nil where it has not; years of seedlings
      # that begin again then; money that clearing takes more by now, nil where the amount is not known; others: how
      # many looks more of the same work are late, which one look makes.
      Late = Core::Value.define(:days, :seeded_on, :years, :money, :others)

      # tasks: those whose lateness will be asked for, and the properties that they are on, so that all are read at
      # once.
      def initialize(property, today, tasks: [], properties: [property])
        @property, @today, @tasks = property, today, tasks
        @properties = properties.to_h { |one| [one.id, one] }
      end

      # [[day, [task]]] of several visits that one walk makes.
      def rounds
        tasks = soon
        places = Patch.where(id: tasks.map(&:patch_id).uniq).select_hash(:id, %i[west east south north])
        visits = tasks.map { |task| visit(task, places.fetch(task.patch_id)) }
        by_id = tasks.to_h { |task| [task.id, task] }
        found = Recheck::VisitRounds.new(visits).rounds.map do |round|
          [[round.on, @today].max, round.visits.map { |one| by_id.fetch(one.id) }]
        end
        found.select { |_, some| some.uniq(&:patch_id).size > 1 }
      end

      # What an open visit has cost by being late; nil where it is not, or hardly.
      def late(task)
        return unless late?(task)

        days, patch = (@today - task.due_on).to_i, patch_of(task)
        return Late.new(days:, others: others(task)) unless patch.plant

        seeded = seeded_since(patch, task.due_on)
        Late.new(days:, seeded_on: seeded, years: seeded && patch.years_of(:seed_bank_years),
                 money: dearer(patch, days), others: others(task))
      end

      private

      def late?(task) = @today - task.due_on >= LATE && !%w[report planting].include?(task.kind)

      # With all that is asked of it.
      def patch_of(task)
        @patches ||= late_patches
        @patches[task.patch_id] ||= Patch[task.patch_id]
      end

      def late_patches
        found = Patch.where(id: @tasks.select { |task| late?(task) }.map(&:patch_id).uniq).eager(*READ).as_hash(:id)
        found.each_value do |patch|
          property = @properties[patch.property_id]
          patch.associations[:property] = property if property
        end
      end

      def soon
        Task.due(through: @today + DAYS, limit: MOST).where(property_id: @property.id)
            .exclude(Sequel[:tasks][:kind] => "report").all
      end

      def visit(task, (west, east, south, north))
        wait = task.since_on ? (task.due_on - task.since_on).to_i / 2 : EARLY
        to = [task.due_on, @today].max
        from = task.happened_on || task.event ? to : [task.due_on - [EARLY, wait].min, @today].max
        at = [(west + east) / 2, (south + north) / 2]
        Recheck::VisitRounds::Visit.new(id: task.id, from: [from, to].min, to:, at:)
      end

      # How many looks more of the same work are late.
      def others(task)
        return 0 unless task.treatment_id && task.kind == "check"

        checks_late.fetch([task.patch_id, task.treatment_id], []).count { |due| due > task.due_on }
      end

      # {[patch id, treatment id] => days of its late looks}.
      def checks_late
        @checks_late ||= begin
          open = Task.undone.where(patch_id: @tasks.map(&:patch_id).uniq, kind: "check").where(Sequel[:due_on] < @today)
          open.select_map(%i[patch_id treatment_id due_on]).group_by { |row| row.first(2) }
              .transform_values { |rows| rows.map(&:last) }
        end
      end

      def seeded_since(patch, due)
        calendar = patch.property.site(@today).calendar(patch.plant)
        spans = [due, @today].uniq.flat_map { |day| calendar.phenophases(calendar.site.year(day)) }
        ripe = spans.select { |span| span.phase == :ripe_seed && span.from <= @today && span.to >= due }
        ripe.map { |span| [span.from, due].max }.min
      end

      # What a pass takes more by now: what was missed grew as its stand would.
      def dearer(patch, days)
        ahead = PatchOutlook.new(patch, @today)
        cost = ahead.effort.cost or return
        cost * ((ahead.growth**(days / 365.25)) - 1)
      end
    end
  end
end
