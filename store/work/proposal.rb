# frozen_string_literal: true

module Thistle
  module Store
    # Process: has a work day solved, and writes down what is proposed: who works where in which block, what is
    # finished, what will not fit and why, the order of the walk, how likely the day can be held.
    class Proposal
      # How long the solver may take, s.
      class << self
        attr_accessor :seconds
      end
      self.seconds = 1.2

      def initialize(work_day, today)
        @work_day, @today = work_day, today
        @jobs = DayJobs.new(work_day, today)
      end

      # The work day with its answer.
      def call
        @work_day.update(answer: JSON.generate(written))
        @work_day
      end

      private

      def plan
        pins, bans = @work_day.pins_kept, @work_day.bans_kept
        @plan ||= Core::Work::DayPlan.new(@jobs.day, @jobs.jobs, pins:, bans:)
      end

      def answer = @answer ||= plan.solve(seconds: self.class.seconds)

      def written
        { by: answer.by, sure: answer.sure, worth: answer.worth.round(4), left_out:, unmet:, odds:, exposure:, **walked,
          blocks: plan.day.blocks.map { |block| block.map { |hour| hour.round(3) } },
          done: answer.done.flat_map { |round, share| round.each_part.map { |job| done(job, share) } },
          more: more.flat_map(&:each_part).map { |job| code(job) } }
      end

      # Who works where in which block, in the order of the walk.
      def walked
        { turns: in_order.turns.flat_map { |turn| turn.job.each_part.map { |job| turn(turn, job) } },
          walk: in_order.stops.map(&:id), metres: in_order.metres.round,
          out_of_order: in_order.out.map { |one| { code: code(one.job), why: one.why } } }
      end

      def turn(turn, job)
        { patch: job.id, code: code(job), method: job.method, block: turn.block,
          people: turn.people.map { |one| { id: one.id, name: one.name } } }
      end

      def done(job, share)
        hours = @jobs.entry(job).hours
        { patch: job.id, code: code(job), method: job.method, share: share.round(3), hours: hours.range,
          because: hours.because, own: hours.own?, late: job.late, needs: job.needs.map(&:text) }
      end

      # Patches that are right that day and were left out, and why: [{patch, code, method, why}].
      def left_out
        chosen = parts.map(&:id)
        rest = plan.jobs.flat_map(&:each_part).reject { |job| chosen.include?(job.id) }.uniq(&:id)
        rest.map do |job|
          why = plan.against(job)
          arguable = why == Core::Work::DayPlan::NOT_THAT_DAY && @jobs.entry(job).removal.judged_on_the_ground?
          { patch: job.id, code: code(job), method: job.method, why:, arguable: }
        end
      end

      # What is held and cannot be: [{code, why}].
      def unmet
        plan.unmet(answer.turns).map { |id, why| { code: Patch[id]&.code, why: } }
      end

      def more = @work_day.heads.zero? ? [] : plan.one_more_pair.uniq(&:id)

      # The blocks and the walk as one.
      def in_order
        @in_order ||= begin
          places = parts.to_h { |job| [job.id, @jobs.at(@jobs.entry(job).patch)] }
          Core::Work::InOrder.new(plan, answer.turns, pins: @work_day.pins_kept, at: places)
        end
      end

      # Of each kind of work on the day, in how many past years it could be done: [{work, fit, of, what}].
      def odds
        removals = parts.map { |job| @jobs.entry(job).removal }.uniq
        found = removals.filter_map { |removal| Core::Season::Limits.of(removal) }.uniq.map do |limits|
          { work: limits.key, **Core::Work::Odds.years(site, @work_day.held_on, limits).to_h }
        end
        found.group_by { |one| one[:work] }.map { |_, some| some.min_by { |one| one[:fit] } }
      end

      # Jobs that are worked on, each patch once.
      def parts = @parts ||= answer.turns.flat_map { |turn| turn.job.each_part }.uniq(&:id)

      # What the hours ask of bodies; nil of what is not known.
      def exposure
        bodies = @jobs.bodies
        return unless bodies.known? || bodies.felt

        { felt: bodies.said && bodies.felt.round(1), said: bodies.said, wbgt: bodies.wbgt&.round(1),
          work_rest: bodies.work_rest, drink_l_h: bodies.drink,
          water_l: bodies.litres(@work_day.heads, worked_h).round(1),
          typed: Core::Work::Bodies::TYPED.select { |what| bodies.typed?(what) } }
      end

      def worked_h = @work_day.to_h_of_day - @work_day.from_h
      def site = @work_day.property.site(@today)
      def code(job) = @jobs.entry(job).patch.code
    end
  end
end
