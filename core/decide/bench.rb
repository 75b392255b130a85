# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Asks every rule about every method that the plant's file names, and puts the answers in order.
      #
      #   Bench.new(choices, site).verdicts  # => [Verdict], go first, best first
      class Bench
        AHEAD = 366 # days to look for the end of a wait
        # Single changes that a person could make, and how the page says so.
        CHANGES = { licensed: [true, "a licensed person on site"], stance: ["any", "any labelled herbicide use allowed"],
                    soil: [:moist, "moist soil"], natives_near: [false, "no desirable plant in reach"],
                    aquatic_label: [true, "a product labelled for aquatic use"],
                    settled: [true, "the name settled"], reported: [true, "a report made"] }.freeze

        attr_reader :choices, :site

        def initialize(choices, site, knowledge: Knowledge.shipped)
          @choices, @site, @knowledge = choices, site, knowledge
          @outlook = Outlook.new(choices, site)
        end

        def situation = @outlook.on(choices.date)
        def spans = @outlook.spans

        # All verdicts, frozen: go before wait before no, then the sooner, then the fewer crew hours to quiet.
        def verdicts
          @verdicts ||= removals.map { |removal| verdict(removal) }.sort_by { |v| order(v) }.freeze
        end

        # The verdict of one method.
        def verdict(removal)
          reasons = reasons_on(removal, choices.date)
          kind, finish = settle(removal, reasons)
          effort = Effort.new(removal, choices)
          Verdict.new(removal:, kind:, until: finish, reasons: dated(removal, reasons), kill: removal.kill(choices.plant),
                      hours: effort.hours, years_to_quiet: effort.years_to_quiet,
                      plant_note: choices.plant.removals.dig(removal.key, "text"),
                      closes: kind == :go ? closing(removal) : nil)
        end

        # The days of the season-year on which a method is right, by the same rules: [Season::Windows::Window].
        def windows(removal) = (@windows ||= Season::Windows.new(choices, site)).of(removal)

        # What one change would turn into go today: [[words, [method names]]].
        def changes
          CHANGES.filter_map do |field, (value, words)|
            next if choices[field] == value || (field == :soil && situation.soil == value)

            other = self.class.new(choices.with(field => value), site, knowledge: @knowledge)
            gained = other.going - going
            [words, gained.map(&:name)] if gained.any?
          end
        end

        # Methods that are go on the chosen date and take plants out.
        def going
          @going ||= removals.select { |r| r.removes? && kind_of(reasons_on(r, choices.date)) == :go }
        end

        # The plant's own methods; report_only is always among them.
        def removals
          keys = choices.plant.removals.keys | ["report_only"]
          keys.map { |key| @knowledge.removal(key) }
        end

        private

        def reasons_on(removal, date)
          now = @outlook.on(date)
          Rule.for(removal).filter_map { |rule| rule.judge(now, removal) }
        end

        def kind_of(reasons)
          worst = reasons.max_by(&:weight)
          worst.nil? || worst.kind == :note ? :go : worst.kind
        end

        # A wait ends on the first later day when no rule objects. When none comes within a year, it is a no.
        def settle(removal, reasons)
          kind = kind_of(reasons)
          return [kind, nil] unless kind == :wait

          finish = first_day { |date| kind_of(reasons_on(removal, date)) == :go }
          finish ? [:wait, finish] : [:no, nil]
        end

        def dated(removal, reasons)
          reasons.map do |reason|
            next reason unless reason.kind == :wait

            rule = Rule.named(reason.rule)
            reason.with(until: first_day { |date| rule.judge(@outlook.on(date), removal)&.kind != :wait })
          end.sort_by { |reason| -reason.weight }.freeze
        end

        def first_day(&) = ((choices.date + 1)..(choices.date + AHEAD)).find(&)

        # The last day of the stretch that is open now: by the forecast, else by the window of the year; nil where
        # nothing shuts it.
        def closing(removal)
          shut = ((choices.date + 1)..site.horizon).find { |date| kind_of(reasons_on(removal, date)) != :go }
          return shut - 1 if shut

          windows(removal).find { |window| choices.date.between?(window.from, window.to) && window.closes }&.to
        end

        def order(verdict)
          [{ go: 0, wait: 1, no: 2 }.fetch(verdict.kind), verdict.removal.removes? ? 0 : 1,
           verdict.until || choices.date, verdict.hours_to_quiet || Float::INFINITY, -verdict.kill["likely"]]
        end
      end
    end
  end
end
