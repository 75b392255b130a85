# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # A property's calendar: windows of the plants on it, ripe seed, what is due, the best hours for each kind of
      # work, what labels keep shut, records that lack something.
      class Calendar
        AHEAD = 400 # days of tasks
        MOST = 400 # visits that stand in it one by one
        DAYS = 2 # best days for each kind of work
        Entry = Formats::Ics::Entry

        attr_reader :property

        def initialize(property, today)
          @property, @today = property, today
        end

        def entries = @entries ||= windows + seeds + tasks + planned + days + hours + labels + records

        def to_ics
          Formats::Ics.write(entries, name: property.name, zone: property.clock.name, stamp: Time.now.utc)
        end

        # {kind => number of entries}
        def counts = entries.map(&:kind).tally

        private

        def site = property.site(@today)
        def board = @board ||= YearBoard.new(property, site, @today)
        def cards = board.here.empty? ? [] : board.cards
        def year = site.year.start.year

        def windows
          cards.flat_map do |card|
            card.windows.select { |removal, _| removal.removes? || removal.is?(:freeing) }.flat_map do |removal, spans|
              shut = spans.select { |span| span.opens || span.closes }
              shut.each_with_index.map { |span, n| window(card.plant, removal, span, n) }
            end
          end
        end

        def window(plant, removal, window, at)
          held = window.held
          text = [window.opens && "Before: #{said_reason(window.opens)}",
                  window.closes && "After: #{said_reason(window.closes)}",
                  held && "#{held.days} of #{held.of} days were fit, median of #{held.years} years."].compact.join("\n")
          entry("window-#{plant.key}-#{removal.key}-#{year}-#{at}",
                kind: "Windows", title: "#{plant.name}: #{removal.name}", text:, from: window.from, to: window.to)
        end

        def seeds
          cards.flat_map do |card|
            card.calendar.phenophases(site.year).select { |span| span.phase == :ripe_seed }
                .each_with_index.map do |span, n|
              early, late = [span.early, span.late].map { |date| Web::Words.day(date) }
              entry("seed-#{card.plant.key}-#{year}-#{n}",
                    kind: "Seed", title: "#{card.plant.name}: ripe seed", from: span.from, to: span.to,
                    text: "Seed likely ripens between #{early} and #{late}.")
            end
          end
        end

        def tasks
          due = Store::Task.due(through: @today + AHEAD).where(property_id: property.id)
          soon = due.limit(MOST).all
          each = soon.map do |task|
            plant = task[:plant_key] && Core::Knowledge.shipped.plant(task[:plant_key]).name
            title = "#{Store::Task::KINDS[task.kind]} #{[task[:code], plant].compact.join(", ")}"
            entry("task-#{task.id}", kind: "Tasks", title:, text: task.reason, from: task.due_on, to: task.due_on)
          end
          soon.size < MOST ? each : each + together(due, soon.last.due_on)
        end

        # Past as many as a calendar can show, a day's visits are one entry.
        def together(due, after)
          due.unordered.where(Sequel[:tasks][:due_on] > after).from_self.group_and_count(:due_on).order(:due_on)
             .all.map do |row|
            day = row[:due_on]
            entry("tasks-#{day}", kind: "Tasks", title: "#{row[:count]} visits", text: "Recheck lists them.", from: day,
                                  to: day)
          end
        end

        # Weeks of the season plan.
        def planned
          plan = Store::SeasonPlan.current(property) or return []

          plan.answered[:items].map do |item|
            monday = Date.iso8601(item[:week])
            removal = Core::Knowledge.shipped.removal(item[:method])
            hours = item[:hours].round(1)
            entry("plan-#{item[:patch]}-#{item[:week]}",
                  kind: "Planned", title: "#{item[:code]}: #{removal.name.downcase}", from: monday, to: monday + 6,
                  text: "#{hours} crew hours by the season plan. The day itself decides.")
          end
        end

        # Work days.
        def days
          coming = Store::WorkDay.live.where(property_id: property.id).where(Sequel[:held_on] >= @today)
          coming.order(:held_on, :id).limit(MOST).all.map do |day|
            entry("day-#{day.id}", kind: "Work days", title: "Work day, #{day.starts_at} to #{day.ends_at}",
                                   from: day.held_on, to: day.held_on, text: day.meet.to_s)
          end
        end

        # Ground that a label keeps people or planting off, from its treatment on.
        def labels
          Store::ClosedGround.of([property.id], @today).map do |one|
            title = "#{Mix::UsageWords::CLOSED.fetch(one.kind)}: #{one.codes.join(", ")}"
            entry("label-#{one.kind}-#{one.work.id}", kind: "Labels", title:, from: one.work.done_on, to: one.until,
                                                      text: "By the label of what was used.")
          end
        end

        # Records of herbicide that lack something, on the last day for it.
        def records
          Store::HerbicideRecords.new(property).incomplete(@today, due_from: @today).map do |row|
            missing = row.missing.map { |fact| Core::Mix::RecordRule::FACTS.fetch(fact) }.join("; ")
            entry("record-#{row.work.id}", kind: "Records", title: "Record of herbicide: #{row.work.patch.code}",
                                           from: row.due_on, to: row.due_on, text: "Missing: #{missing}.")
          end
        end

        # The longest fit stretch of the best days ahead.
        def hours
          Core::Knowledge.shipped.fits.keys.flat_map do |key|
            fit = site.fit(key, property.label_limits)
            fit.best_days.first(DAYS).map do |date, stretch|
              entry("fit-#{key}-#{date}", kind: "Work days", title: "#{fit.limits.label}: good hours",
                                          from: [date, stretch.from], to: [date, stretch.to],
                                          text: "By the forecast of #{Web::Words.day(@today)}. The label, " \
                                                "the actual weather and the soil decide.")
            end
          end
        end

        def entry(uid, **fields)
          Entry.new(uid: "#{uid}-#{property.id}@nimble-thistle", place: property.name, **fields)
        end

        def said_reason(reason) = reason.said(property.measures)
      end
    end
  end
end
