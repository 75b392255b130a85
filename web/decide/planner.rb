# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # Has a season solved as a steward asked for it, in the background when it is large, and writes the answer down.
      class Planner
        AT_ONCE = 1200 # options that are solved while the page waits
        CREW_DAY = 8.0 # hours
        TOP = 300 # patches considered, the highest ranked

        # Writes the question down and has it answered; the Store::SeasonPlan.
        def self.ask(property, asked, today)
          Store::SeasonPlan.create(property_id: property.id, asked: JSON.generate(asked))
                           .tap { |plan| new(plan, today).call }
        end

        def initialize(record, today)
          @record, @property, @today = record, record.property, today
          @asked = record.asked_for
        end

        def call
          at_once = options.all.size <= AT_ONCE
          Store::Job.start("plan", @record).public_send(at_once ? :now : :later, failed: method(:failed)) do |job|
            solve(job)
          end
        rescue Core::BadInput => e
          @record.update(status: "failed", fault: e.message)
        rescue StandardError => e # what was asked cannot be laid out at all
          warn "season plan #{@record.id}: #{e.class}: #{e.message}", *e.backtrace.first(5)
          failed
        end

        private

        def solve(job)
          answer = plan.solve
          told = JSON.generate(written(answer))
          job.hold { @record.update(answer: told, status: answer.clashes.any? ? "impossible" : "solved") }
        end

        def failed(*) = @record.update(status: "failed", fault: "The plan could not be solved. What was asked is kept.")

        # Monday of each week, and its crew hours.
        def weeks
          @weeks ||= Date.iso8601(@asked["from"])
                         .then { |from| Array.new(@asked["weeks"]) { |n| from - ((from.wday - 1) % 7) + (7 * n) } }
        end

        def week_hours
          @week_hours ||= weeks.map { |week| @asked.fetch("other", {}).fetch(week.iso8601, @asked["hours"]).to_f }
        end

        def licensed
          from, to = @asked.values_at("licensed_from", "licensed_to").map { |text| text && Date.iso8601(text) }
          from && (from..to)
        end

        def ranking = @ranking ||= Store::Ranking.new(@property, @today, kept: Core::Kept::MOVES)

        def ranked
          @ranked ||= Core::Decide::Priority.new(ranking.candidates, @asked["weights"]).rows.first(TOP)
        end

        def options
          @options ||= Core::Decide::SeasonOptions.new(ranked, @property.site(@today), weeks:, licensed:,
                                                       hours: week_hours, kept: Core::Kept::MOVES)
        end

        def plan
          limits = Core::Decide::Plan::Limits.new(hours: week_hours, litres: @asked["litres"], cost: @asked["budget"],
                                                  labels: labels.caps)
          @plan ||= Core::Decide::Plan.new(options.all, limits, pins: wishes("pins"), bans: wishes("bans"))
        end

        # What the labels of the products in use still allow on each piece of ground.
        def labels = @labels ||= Store::LabelShares.new(@property, options.all, weeks)

        def wishes(kind)
          @asked.fetch(kind, []).map do |wish|
            week = wish["week"] && weeks.index(Date.iso8601(wish["week"]))
            Core::Decide::Plan::Wish.new(patch: wish["patch"], method: wish["method"], week:)
          end
        end

        def written(answer)
          ranking.read(answer.items.map { |option, _| option.patch }.uniq)
          { **answer.to_h.slice(:gain, :bound, :greedy_gain, :by),
            **%i[gap hours litres cost].to_h { |figure| [figure, answer.public_send(figure)] },
            items: answer.items.map { |option, parts| item(option, parts) }
                         .sort_by { |item| item.values_at(:week, :code) },
            options: options.all.size, weeks:, week_hours:, windows: windows(answer.items.keys),
            labels: { pieces: labels.caps.most.size, unknown: labels.unknown },
            left_out: left_out(answer.items), one_more: one_more(answer),
            clashes: answer.clashes.map { |limit, patch| { limit:, code: codes[patch] } } }
        end

        def left_out(items)
          plan.left_out(items, ranked.map(&:id)).map { |id, why| { patch: id, code: codes[id], why: } }
        end

        def one_more(answer)
          return if answer.clashes.any? || plan.options.empty?

          week, gain = plan.one_more(CREW_DAY)
          week && { week: weeks[week], gain: }
        end

        def item(option, parts)
          { patch: option.patch, code: codes[option.patch], method: option.method, week: weeks[option.week], parts:,
            of: option.parts, stands: stands(option.patch),
            hours: option.hours * parts, litres: option.litres * parts, cost: option.cost * parts,
            gain: option.gain * parts }
        end

        # What it was planned for, and by which record; nil where nobody counted.
        def stands(id)
          there = ranking.patch(id).history.there(@today)
          amount = Stands.amount(there)
          amount && "#{amount} #{Stands.source(there)}"
        end

        # {patch => numbers of the weeks in which its chosen method is open}
        def windows(chosen)
          open = options.all.group_by { |option| [option.patch, option.method] }
          chosen.to_h { |option| [option.patch, open.fetch([option.patch, option.method]).map(&:week)] }
        end

        def codes = @codes ||= ranked.to_h { |row| [row.id, row.candidate.code] }
      end
    end
  end
end
