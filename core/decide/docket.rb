# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What all rules say of one method, day by day. Those that look at nothing that changes from day to day are asked
      # once; they say the same on every other day.
      class Docket
        SAME_DAY = 2 # what weighs more than a wait is not weighed against the day

        # usual: each day as it usually is, without the weather of single days; beside: a Docket of the same method and
        # days, and the facts that are others there: rules that look at none of them say the same.
        def initialize(removal, projection, book, usual: false, beside: nil)
          @removal, @projection, @usual = removal, projection, usual
          @rules = book.for(removal)
          @beside, @changed = beside
          @said = {}.compare_by_identity
        end

        # Does every rule say here what it says beside?
        def same? = !@beside.nil? && @rules == @beside.rules && @rules.all? { |rule| shared?(rule) }

        # [Reason] on a day.
        def reasons(date)
          part(date) unless @dated
          [*@fixed, *@dated.filter_map { |rule| judge(rule, date) }]
        end

        # The strictest of the reasons against it that hold on every day; nil for none.
        def always(date)
          part(date) unless @dated
          @always
        end

        # The strictest Reason against it on a day; nil where nothing is.
        def objection(date)
          held = always(date)
          return held if held && held.weight > SAME_DAY

          [held, *@dated.map { |rule| judge(rule, date) }].compact.select(&:against?).max_by(&:weight)
        end

        # The first of some days on which no rule objects; nil for none.
        def first_open(dates)
          return if always(dates.first)

          last = nil # what objected yesterday most likely objects today: asked first
          dates.find do |date|
            next false if last && judge(last, date)&.against?

            last = @dated.find { |rule| judge(rule, date)&.against? }
            last.nil?
          end
        end

        # The first of some days on which one rule no longer waits.
        def released(rule, dates) = dates.find { |date| judge(rule, date)&.kind != :wait }

        # What one rule says on a day: a Reason or nil.
        def judge(rule, date)
          return @beside.judge(rule, date) if shared?(rule)

          said = @said[rule] ||= {}
          said.fetch(date) { said[date] = rule.judge(at(date), @removal) }
        end

        # [what a rule says on a day, whether it looked at what changes from day to day].
        def watch(rule, date)
          return @beside.watch(rule, date) if shared?(rule)

          (@watched ||= {})[[rule.key, date]] ||= begin
            now = @projection.watched(date, usual: @usual)
            Situation.watching { rule.judge(now, @removal) }
          end
        end

        protected

        attr_reader :rules

        private

        def shared?(rule) = @beside && !rule.looks.intersect?(@changed)
        def at(date) = @usual ? @projection.usually(date) : @projection.on(date)

        def part(date)
          judged = @rules.map { |rule| [rule, *watch(rule, date)] }
          dated, fixed = judged.partition(&:last)
          @dated = dated.map(&:first)
          @fixed = fixed.filter_map { |_, reason, _| reason }
          @always = @fixed.select(&:against?).max_by(&:weight)
        end
      end
    end
  end
end
