# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # A day's choice as a Core::Programme. Columns: how many of a kind of people are at a job
      # in a block; is a job worked on in a block; tools that it takes there; the share of a job that is done, and is
      # it finished.
      class DayProgramme
        CHOICES = %i[share whole].freeze # columns of no block

        # plan: a DayPlan; pins: {job id => block, or nil for any}.
        def initialize(plan, pins)
          @plan, @day, @pins = plan, plan.day, pins
          @jobs = plan.jobs.reject { |job| plan.against(job) }
          @kinds = @day.kinds
          @programme = Programme.new
        end

        # [[DayPlan::Turn], or nil where none was found in time; is nothing better possible?] within: blocks that are
        # solved, while the others stay as they are in a plan that is there already, `around`.
        def solve(seconds, within: nil, around: [])
          lay_out
          hold(around, within) if within
          return [[], true] if @programme.empty?

          answer = @programme.solve(seconds:)
          answer ? [turns(answer.values), answer.proved] : [nil, false]
        end

        private

        def lay_out
          @at = {}
          @jobs.each { |job| job_columns(job) }
          people_rows
          tool_rows
          patch_rows
          pin_rows
        end

        # Blocks that are not to change.
        def hold(turns, within)
          counts = turns.map { |turn| counts(turn) }.reduce({}, :merge)
          @at.each do |name, at|
            next if CHOICES.include?(name[0]) || within.include?(name[2])

            @programme.hold(at, counts.fetch(name, 0))
          end
        end

        # {name of a column => what it is in a turn}
        def counts(turn)
          place = [turn.job, turn.block]
          kinds = turn.people.map { |person| person.kind(@day.date) }.tally
          people = kinds.transform_keys { |kind| [:people, *place, kind] }
          tools = turn.job.tools.to_h { |key, per| [[:tool, *place, key], (turn.people.size / per.to_f).ceil] }
          { [:here, *place] => 1, **people, **tools }
        end

        # One column; answers its number.
        def column(name, **kind) = @at[name] = @programme.column(**kind)

        # low ≤ Σ amount × column ≤ high, of the columns that there are.
        def row(amounts, **bounds)
          known = amounts.reject { |at, _| at.nil? }
          @programme.row(known, **bounds) if amounts.any?
        end

        def blocks(job) = @day.blocks.each_index.select { |block| @plan.worked(job, block).positive? }
        def kinds(job) = @kinds.keys.select { |kind| job.takes?(@kinds[kind].first) }

        def job_columns(job)
          column([:share, job], worth: DayPlan::PART * job.score, whole: false)
          column([:whole, job], worth: DayPlan::WHOLE * job.score)
          row({ @at[[:share, job]] => 1.0, @at[[:whole, job]] => -1.0 }, low: 0.0)
          blocks(job).each { |block| block_columns(job, block) }
          work = { @at[[:share, job]] => -job.hours }
          blocks(job).each do |block|
            kinds(job).each { |kind| work[@at[[:people, job, block, kind]]] = @plan.worked(job, block) }
          end
          row(work, low: 0.0)
        end

        def block_columns(job, block)
          early = job.late ? DayPlan::EARLY * (@plan.last - block) : 0.0
          here = column([:here, job, block], worth: -(DayPlan::MOVE + early))
          people = kinds(job).to_h do |kind|
            [column([:people, job, block, kind], most: @kinds[kind].size.to_f), kind]
          end
          all = people.keys.to_h { |at| [at, 1.0] }
          row(all.merge(here => -job.least.to_f), low: 0.0)
          row(all.merge(here => -job.most.to_f), high: 0.0)
          job.needs.each do |need|
            able = people.select { |_, kind| need.met?(@kinds[kind].first, @day.date) }.keys.to_h { |at| [at, 1.0] }
            row(able.merge(here => -1.0), low: 0.0)
          end
          tools(job, block, all)
        end

        # As many as the people at it share.
        def tools(job, block, all)
          job.tools.slice(*@day.tools.keys).each do |key, per|
            taken = column([:tool, job, block, key], most: @day.tools[key].to_f)
            row(all.transform_values { |one| one / -per }.merge(taken => 1.0), low: 0.0)
          end
        end

        def people_rows
          @day.blocks.each_index do |block|
            @kinds.each do |kind, people|
              row(each_job { |job| @at[[:people, job, block, kind]] }, high: people.size.to_f)
            end
          end
        end

        def tool_rows
          @day.blocks.each_index do |block|
            @day.tools.each { |key, count| row(each_job { |job| @at[[:tool, job, block, key]] }, high: count.to_f) }
          end
        end

        def each_job(&) = @jobs.filter_map(&).to_h { |at| [at, 1.0] }

        # A patch that could be done in several ways is done once.
        def patch_rows
          parts = @jobs.flat_map { |job| job.each_part.map { |part| [part.id, job] } }
          parts.group_by(&:first).transform_values { |some| some.map(&:last) }.each_value do |ways|
            row(ways.to_h { |job| [@at[[:share, job]], 1.0] }, high: 1.0) if ways.size > 1
          end
        end

        def pin_rows
          @pins.each do |id, block|
            here = @jobs.select { |job| job.id == id }.flat_map do |job|
              (block ? [block] : blocks(job)).filter_map { |one| @at[[:here, job, one]] }
            end
            row(here.to_h { |at| [at, 1.0] }, low: 1.0)
          end
        end

        # People by name: whoever was at a job before stays there.
        def turns(values)
          before = {}
          @day.blocks.each_index.flat_map do |block|
            free = @kinds.transform_values(&:dup)
            here = @jobs.select { |job| @at[[:here, job, block]]&.then { |at| values[at] > 0.5 } }
            found = here.map { |job| DayPlan::Turn.new(job:, block:, people: named(job, block, values, free, before)) }
            before = found.to_h { |turn| [turn.job, turn.people] }
            found.reject { |turn| turn.people.empty? }
          end
        end

        def named(job, block, values, free, before)
          kinds(job).flat_map do |kind|
            count = values[@at[[:people, job, block, kind]]].round
            mine = free[kind].sort_by { |person| stays(person, job, before) }.first(count)
            free[kind] -= mine
            mine
          end
        end

        def stays(person, job, before)
          return 0 if before[job]&.include?(person)

          before.any? { |other, people| other != job && people.include?(person) } ? 2 : 1
        end
      end
    end
  end
end
