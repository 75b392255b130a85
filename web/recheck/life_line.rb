# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # A patch's life on one line: its states, work, looks and pictures, what was counted, the years ahead; and what it
      # was on any two days.
      class LifeLine
        AHEAD = 3 # years of outlook
        # What is known of a day: state, m² of ground, the last look by then, pieces of work and person-hours, a
        # picture.
        Then = Core::Value.define(:on, :state, :square_m, :look, :works, :hours, :picture)

        attr_reader :patch, :errors

        def initialize(params, patch, today)
          @params, @patch, @today, @errors = params, patch, today, {}
        end

        # [first day, last day] of the line.
        def span = [history.first&.first || patch.seen_on, @today >> (outlook ? 12 * AHEAD : 3)]

        # [[from, to, state]].
        def states
          steps = patch.life.states
          steps.each_cons(2).map { |(from, state), (to, _)| [from, to, state] } +
            steps.last(1).map { |from, state| [from, @today, state] }
        end

        # [[day, :observation, :treatment or :check, record]].
        def history = @history ||= patch.history.records
        def pictures = @pictures ||= Store::Picture.every(patch)

        # [[day, alive]] of every look.
        def counts = history.filter_map { |on, kind, look| [on, look.alive] if kind == :check }

        # The outlook as it is gone on with; nil for a patch that is over, or has no name.
        def outlook
          return @outlook if defined?(@outlook)

          @outlook = patch.plant && patch.state != "closed" ? ahead : nil
        end

        # [[day, [low, middle, high]]] of plants that stand, year by year ahead, in the middle of each.
        def years
          outlook.years.each_with_index.map do |year, n|
            [[Date.new(@first_year + n, 7, 1), @today + 1].max, year.standing.values_at(0, 2, 4)]
          end
        end

        # Two days to compare: the first and today, unless the address says others.
        def compared
          days = { "from" => span.first, "to" => @today }.map { |name, usual| day(name) || usual }
          days.map { |on| then_on(on) }
        end

        def [](field) = @params[field.to_s].is_a?(String) ? @params[field.to_s] : ""
        def error(field) = errors[field]

        private

        def ahead
          read = Store::PatchOutlook.new(patch, @today)
          @first_year = read.first_year
          read.outlook(horizon: AHEAD).compare([read.strategy(read.removals.first)]).first
        end

        def day(name)
          return if self[name].empty?

          found = Date.iso8601(self[name])
          return found if found.between?(span.first, @today)

          errors[name.to_sym] = "is not between #{Web::Words.full_day(span.first)} and today"
          nil
        rescue ArgumentError # no day, or too long for one
          errors[name.to_sym] = "is no day"
          nil
        end

        def then_on(date)
          by = history.select { |on, _, _| on <= date }
          works = by.filter_map { |_, kind, record| record if kind == :treatment }
          Then.new(on: date, state: states.reverse.find { |from, _, _| from <= date }&.last || "reported",
                   square_m: ground(date), look: by.reverse.find { |_, kind, _| kind == :check }&.last,
                   works: works.size, hours: works.sum { |work| work.hours * work.crew_size },
                   picture: pictures.reverse.find { |one| one.taken_on <= date })
        end

        def ground(date)
          Core::Survey::Growth.new(patch.versions).steps(@today).reverse.find { |on, _| on <= date }&.at(1)
        end
      end
    end
  end
end
