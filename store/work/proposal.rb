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
        { by: answer.by, sure: answer.sure,
          turns: answer.turns.flat_map { |turn| turn.job.each_part.map { |job| turn(turn, job) } },
          blocks: plan.day.blocks.map { |block| block.map { |hour| hour.round(3) } },
          done: answer.done.flat_map { |round, share| round.each_part.map { |job| done(job, share) } },
          left_out:, unmet:, more: more.flat_map(&:each_part).map { |job| code(job) }, worth: answer.worth.round(4),
          walk: walk.order.map(&:id), metres: walk.metres.round, odds:, exposure: }
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

      def walk
        @walk ||= begin
          places = parts.map do |job|
            Core::Work::Walk::Place.new(id: job.id, at: @jobs.at(@jobs.entry(job).patch), late: job.late)
          end
          Core::Work::Walk.new([0.0, 0.0], places)
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

      def exposure = @jobs.exposure&.then { |felt, said| { felt: felt.round(1), said: } }
      def site = @work_day.property.site(@today)
      def code(job) = @jobs.entry(job).patch.code
    end
  end
end
