# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # Open visits counted over thirteen months: those that are late, each month, each week of it; and the stretch of
      # days that an address asks for.
      class VisitStrip
        MONTHS = 13
        KINDS = Store::Task::KINDS.keys.freeze

        # label: "Jun"; from, to: its days; count: visits; weeks: [Week] of a month.
        Column = Core::Value.define(:label, :from, :to, :count, :weeks)
        # at, wide: where it begins and ends in its month, 0 to 1; kinds: {kind => visits}.
        Week = Core::Value.define(:from, :to, :at, :wide, :kinds)

        # The last day that is shown.
        def self.last(today) = (Date.new(today.year, today.month, 1) >> MONTHS) - 1

        # tasks: dataset of Store::Task.due.
        def initialize(tasks, today)
          @tasks, @today = tasks, today
        end

        # [Column]: what is late, then month by month.
        def columns = @columns ||= [late, *months]
        def most = @most ||= [columns.flat_map { |one| one.weeks.map { |week| week.kinds.values.sum } }.max || 0, 4].max

        # The tasks due from a day to a day; nil for no bound.
        def between(from, to)
          due = Sequel[:tasks][:due_on]
          found = from ? @tasks.where(due >= from) : @tasks
          to ? found.where(due <= to) : found
        end

        private

        def late
          before = counts.select { |(due, _), _| due < @today }
          week = Week.new(from: nil, to: @today - 1, at: 0.35, wide: 0.3, kinds: by_kind(before))
          Column.new(label: "Late", from: nil, to: @today - 1, count: before.values.sum, weeks: [week])
        end

        def months
          Array.new(MONTHS) do |n|
            first = Date.new(@today.year, @today.month, 1) >> n
            last = (first >> 1) - 1
            from = [first, @today].max
            Column.new(label: first.strftime("%b"), from:, to: last, count: within(from, last).values.sum,
                       weeks: weeks(first, from, last))
          end
        end

        # A month's weeks from Monday on; the first and the last may be shorter.
        def weeks(first, from, last)
          (from..last).slice_when { |_, day| day.monday? }.map do |days|
            length = (last - first).to_i + 1
            Week.new(from: days.first, to: days.last, at: (days.first - first).to_f / length,
                     wide: days.size.to_f / length, kinds: by_kind(within(days.first, days.last)))
          end
        end

        def within(from, last) = counts.select { |(due, _), _| due.between?(from, last) }

        def by_kind(counted)
          KINDS.to_h { |kind| [kind, counted.sum { |(_, one), n| one == kind ? n : 0 }] }.reject { |_, n| n.zero? }
        end

        # {[day, kind] => visits}
        def counts
          @counts ||= @tasks.unordered.unlimited
                            .group_and_count(Sequel[:tasks][:due_on], Sequel[:tasks][:kind])
                            .as_hash(%i[due_on kind], :count)
        end
      end
    end
  end
end
