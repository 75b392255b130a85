# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What all rules say of one method, day by day. Those that look at nothing that changes from day to day are asked
      # once; they say the same on every other day.
      class Docket
        SAME_DAY = 2 # what weighs more than a wait is not weighed against the day

        # usual: each day as it usually is, without the weather of single days.
        def initialize(removal, projection, book, usual: false)
          @removal, @projection, @usual = removal, projection, usual
          @rules = book.for(removal)
        end

        # [Reason] on a day.
        def reasons(date)
          part(date) unless @dated
          [*@fixed, *@dated.filter_map { |rule| rule.judge(at(date), @removal) }]
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

          [held, *@dated.map { |rule| rule.judge(at(date), @removal) }].compact.select(&:against?).max_by(&:weight)
        end

        # The first of some days on which no rule objects; nil for none.
        def first_open(dates)
          return if always(dates.first)

          now = nil
          last = nil # what objected yesterday most likely objects today: asked first
          dates.find do |date|
            now = at(date)
            next false if last && objects?(last, now)

            last = @dated.find { |rule| objects?(rule, now) }
            last.nil?
          end
        end

        # The first of some days on which one rule no longer waits.
        def released(rule, dates) = dates.find { |date| rule.judge(at(date), @removal)&.kind != :wait }

        private

        def objects?(rule, now) = rule.judge(now, @removal)&.against?
        def at(date) = @usual ? @projection.usually(date) : @projection.on(date)

        def part(date)
          now = @projection.watched(date, usual: @usual)
          judged = @rules.map { |rule| [rule, *Situation.watching { rule.judge(now, @removal) }] }
          dated, fixed = judged.partition(&:last)
          @dated = dated.map(&:first)
          @fixed = fixed.filter_map { |_, reason, _| reason }
          @always = @fixed.select(&:against?).max_by(&:weight)
        end
      end
    end
  end
end
