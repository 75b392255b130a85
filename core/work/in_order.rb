# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # A day in the order in which it is walked: blocks of a plan change places where nobody holds them and their hours
      # are as fit, so that clean ground comes before plants in seed and the way is short; then the stops of each block
      # by the shortest way on.
      class InOrder
        TRIED = 6 # blocks of which every order is tried
        Out = Value.define(:job, :why) # what is worked before clean ground though it is in seed, and why

        attr_reader :turns

        # plan: DayPlan; turns: of its answer; pins: as the plan has them; at: {job id of a part => [x, y]}.
        def initialize(plan, turns, pins: {}, at: {})
          @plan, @pins, @at = plan, pins, at
          @turns = reordered(turns)
        end

        def inspect = "#<#{self.class.name} #{turns.size} turns>"

        # [job] that are parts, in the order of the walk.
        def stops = @stops ||= by_block.values.reduce([]) { |done, jobs| done + leg(done, jobs) }

        # Metres from the start, round and back.
        def metres = legs(stops.map { |job| place(job) })

        # [Out]
        def out
          last_clean = stops.rindex { |job| !job.late } || -1
          stops.each_with_index.select { |job, n| job.late && n < last_clean }
               .map { |job, _| Out.new(job:, why: @pins[job.id] ? "it is held there" : "its hours are fit only then") }
        end

        private

        def place(job) = @at.fetch(job.id)
        def parts(turns) = turns.flat_map { |turn| turn.job.each_part }
        def by_block = @turns.group_by(&:block).sort.to_h.transform_values { |some| parts(some) }

        def legs(points)
          [[0.0, 0.0], *points, [0.0, 0.0]].each_cons(2).sum { |a, b| Math.hypot(a[0] - b[0], a[1] - b[1]) }
        end

        # The order of blocks that walks least, of those that are worth as much as the plan.
        def reordered(turns)
          used = turns.map(&:block).uniq.sort
          return turns if used.size < 2 || used.size > TRIED

          used.permutation.sort_by { |order| cost(turns, used, order) }.each do |order|
            changed = moved(turns, used.zip(order).to_h)
            return changed if possible?(turns, changed)
          end
          turns
        end

        def moved(turns, to) = turns.map { |turn| turn.with(block: to.fetch(turn.block)) }

        # Pins stay, and each job is worked as long as before.
        def possible?(was, now)
          was.zip(now).all? do |old, new|
            (old.block == new.block || @pins[old.job.id].nil?) &&
              @plan.worked(new.job, new.block) >= @plan.worked(old.job, old.block) - 0.05
          end && @plan.worth(now) >= @plan.worth(was) - 0.01
        end

        # Metres between the middles of blocks; seed before clean ground counts more than any way. order: the block that
        # each of those used becomes.
        def cost(turns, used, order)
          @blocks ||= turns.group_by(&:block).transform_values do |some|
            jobs = parts(some)
            [middle(jobs), jobs.any?(&:late), jobs.any? { |job| !job.late }]
          end
          by = used.zip(order).sort_by(&:last).map { |block, _| @blocks.fetch(block) }
          early = by.each_index.count { |n| by[n][1] && by.drop(n + 1).any?(&:last) }
          (early * 1e6) + legs(by.map(&:first))
        end

        # The stops of a block that were not visited yet, on from the last one.
        def leg(done, jobs)
          left = jobs.uniq(&:id).reject { |job| done.any? { |one| one.id == job.id } }
          places = left.map { |job| Walk::Place.new(id: job, at: place(job), late: job.late) }
          Walk.new(done.any? ? place(done.last) : [0.0, 0.0], places, back: false).order.map(&:id)
        end

        def middle(jobs)
          points = jobs.map { |job| place(job) }
          [points.sum(&:first) / points.size, points.sum(&:last) / points.size]
        end
      end
    end
  end
end
