# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # The days of a season-year on which a method is right for a plant on some ground, as the rules say, with the
      # usual soil and without the weather of single days. Between two days on which something turns, a phase, the soil,
      # a mark that a rule looks at, one day speaks for all.
      class Windows
        # opens and closes: the Reason that stood against it before and after, nil at the edge of the year.
        Window = Value.define(:removal, :from, :to, :opens, :closes, :held) do
          def days = (to - from).to_i + 1
        end
        Run = Value.define(:from, :to, :reason)

        def initialize(facts, site)
          @facts, @site = facts, site
          @year = site.year(facts.date)
          @projection = Projection.new(facts, site)
        end

        # [Window] of one method in this season-year.
        def of(removal)
          limits = @projection.usually(@year.start).limits(removal)
          stretches(removal).each_cons(3).filter_map do |before, same, after|
            next if same.first.reason

            from, to = same.first.from, same.last.to
            Window.new(removal:, from:, to:, opens: before&.last&.reason, closes: after&.first&.reason,
                       held: @site.workable.held(limits, from, to))
          end
        end

        # Days of the year on which an answer may change; the first is its start.
        def turns
          @turns ||= begin
            phases = @projection.calendar.phenophases(@year).flat_map { |span| [span.from, span.to + 1] }
            marks = @facts.rules.turns.filter_map { |key, days| @year.date(key)&.+(days) }
            local = @facts.rules.dates(@year.start, @year.finish)
            turns = [@year.start, *phases, *marks, *local, *@site.soil_turns(@year)]
            turns.select { |date| @year.cover?(date) }.uniq.sort
          end
        end

        private

        # [[Run]] alike in being open or shut, nil at both ends so that each has neighbours.
        def stretches(removal)
          docket = Docket.new(removal, @projection, @facts.rules, usual: true)
          return [nil, nil] if %i[no ask].include?(docket.always(@year.start)&.kind) # shut all year

          runs = turns.each_with_index.map do |from, n|
            Run.new(from:, to: (turns[n + 1] || (@year.finish + 1)) - 1, reason: docket.objection(from))
          end
          [nil, *runs.slice_when { |a, b| a.reason.nil? != b.reason.nil? }, nil]
        end
      end
    end
  end
end
