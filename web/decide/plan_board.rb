# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # A solved season plan, ready for its page: sums, and where its drawing puts each week, in % of its width.
      class PlanBoard
        TOP, ROW, BARS = 22, 17, 36
        SHOWN = 40 # patches that are drawn; all are listed
        Line = Struct.new(:code, :y, :open, :done)
        Bar = Struct.new(:x, :given, :used)

        attr_reader :answer

        def initialize(answer)
          @answer = answer
        end

        def items = answer[:items]
        def weeks = answer[:weeks]
        def patches = items.map { |item| item[:patch] }.uniq.size
        def busy_weeks = items.map { |item| item[:week] }.uniq.size
        def hours_given = answer[:week_hours].sum
        def proved? = answer[:gap] < 0.0005

        # {Monday => its items}
        def by_week = items.group_by { |item| item[:week] }
        def used(week) = items.select { |item| item[:week] == week }.sum { |item| item[:hours] }
        def given(week) = answer[:week_hours][weeks.index(week)]

        # A gain as a share of what is possible: "95 %".
        def share(gain)
          percent = answer[:bound].to_f.positive? ? 100 * gain / answer[:bound] : 0
          percent.positive? && percent < 1 ? "under 1\u00A0%" : "#{percent.round}\u00A0%"
        end

        # A share that is no more than so much: "at most 3 %", "under 1 %".
        def at_most(gain) = share(gain).then { |said| said.start_with?("under") ? said : "at most #{said}" }

        # The drawing: a line for each patch by its method, marks of the months, bars of hours.
        def lines
          @lines ||= items.group_by { |item| item.values_at(:patch, :method) }.first(SHOWN)
                          .each_with_index.map do |((patch, _), own), n|
            Line.new(own.first[:code], TOP + (n * ROW), open_weeks(patch).map { |week| x(week) },
                     own.map { |item| x(weeks.index(item[:week])) })
          end
        end

        def floor = TOP + (lines.size * ROW) + BARS + 12
        # How wide a week is, and what is drawn in it.
        def step = (100.0 / weeks.size).round(3)
        def block = (step * 0.95).round(3)

        # [[x, "Jun"]] at the first week of each month, and of the plan.
        def months
          weeks.each_with_index.filter_map do |week, n|
            date = Date.iso8601(week)
            [x(n), date.strftime("%b")] if n.zero? || date.mday <= 7
          end
        end

        def bars
          most = [answer[:week_hours].max, 0.1].max
          weeks.each_with_index.map do |week, n|
            Bar.new(x(n), *[given(week), used(week)].map { |hours| (BARS * hours / most).round(1) })
          end
        end

        private

        def x(week) = (100.0 * week / weeks.size).round(2)
        def open_weeks(patch) = answer[:windows][patch.to_s.to_sym] || []
      end
    end
  end
end
