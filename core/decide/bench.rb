# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Asks every rule about every method that suits the plant, and puts the answers in order.
      #
      #   Bench.new(facts, site).verdicts  # => [Verdict], go first, best first
      class Bench
        SEASON_HOURS = 480 # crew hours of a season: four people, twenty days of six hours (memory)
        HANDS = %i[pulling digging severing rolling levering cutting covering].freeze
        ORDER = { go: 0, wait: 1, ask: 2, no: 3 }.freeze

        # Facts by which the days themselves, or what is asked of a method, are others.
        APART = %i[plant size date stage soil purpose aim].freeze

        attr_reader :facts, :site

        # beside: another Bench, and the facts that are not as they are there.
        def initialize(facts, site, knowledge: Knowledge.shipped, beside: nil)
          @facts, @site, @knowledge = facts, site, knowledge
          @beside, @changed = beside
          @projection = Projection.new(facts, site)
        end

        # The bench if some facts were others. What rules say that look at none of them is not asked again.
        def with(**changed)
          beside = [self, changed.keys] unless changed.keys.intersect?(APART)
          self.class.new(facts.with(**changed), site, knowledge: @knowledge, beside:)
        end

        def inspect = "#<#{self.class.name} #{facts.plant.key} #{facts.date}>"
        def situation = @projection.on(facts.date)
        def spans = @projection.spans

        # All verdicts, frozen: go before wait before ask before no, then the sooner, then what is quiet after the
        # fewest hours.
        def verdicts
          @verdicts ||= removals.map { |removal| verdict(removal) }.sort_by.with_index { |v, n| [order(v), n] }.freeze
        end

        # The verdict of one method.
        def verdict(removal)
          (@told ||= {})[removal] ||= docket(removal).same? ? as_beside(removal) : judge(removal)
        end

        # The days of the season-year on which a method is right, by the same rules: [Windows::Window].
        def windows(removal) = (@windows ||= Windows.new(facts, site)).of(removal)

        # The best that takes plants out, or frees or stops seed where nothing does: the first go, else the soonest
        # wait, else nil.
        def best
          going.map { |removal| verdict(removal) }.min_by { |verdict| order(verdict) } ||
            verdicts.find { |v| v.removal.removes? && v.possible? } ||
            verdicts.find { |v| v.possible? && !v.removal.is?(:reporting) }
        end

        # Methods that the plant's file names, then those that suit its habit, root and stem; reporting is always among
        # them, and marking where the name is not settled.
        def removals
          @removals ||= begin
            keys = named.map(&:key) | @knowledge.suiting(facts.plant).map(&:key)
            keys |= ["tag_and_return"] unless facts.settled
            (keys | ["report_only"]).map { |key| @knowledge.removal(key) }.freeze
          end
        end

        # Those that the plant's own file names.
        def named = facts.plant.removals.keys.map { |key| @knowledge.removal(key) }

        # [Removal, hours] of the best, where hands take longer for one pass than a season has; nil where they do not,
        # or the amount is not known.
        def beyond_hands
          verdict = best or return
          hours = verdict.hours
          [verdict.removal, hours] if hours && hours > SEASON_HOURS && verdict.removal.is?(*HANDS)
        end

        # Methods that are go on the chosen date and take plants out.
        def going = removals.select { |removal| removal.removes? && kind(removal) == :go }

        # The kind of verdict alone, on the chosen date.
        def kind(removal) = kind_of(docket(removal).reasons(facts.date))

        # The first day from the chosen one on which nothing objects to a method, within a year; nil for none.
        def opens(removal) = docket(removal).first_open([facts.date, *@projection.turns])

        # What all rules say of a method, day by day.
        def docket(removal)
          (@dockets ||= {})[removal] ||= begin
            beside = [@beside.docket(removal), @changed] if @beside
            Docket.new(removal, @projection, facts.rules, beside:)
          end
        end

        private

        # Where every rule says the same, only what it takes is another.
        def as_beside(removal)
          effort = Effort.new(removal, facts, soil: situation.soil)
          @beside.verdict(removal).with(effort:, kill: facts.kill(removal))
        end

        # The verdict of one method, worked out.
        def judge(removal)
          reasons = docket(removal).reasons(facts.date)
          kind, finish = settle(removal, reasons)
          Verdict.new(removal:, kind:, until: finish, reasons: dated(removal, reasons, kind),
                      kill: facts.kill(removal),
                      effort: Effort.new(removal, facts, soil: situation.soil),
                      plant_note: removal.told(facts.plant)&.fetch("text"),
                      closes: kind == :go ? closing(removal) : nil, named: removal.told?(facts.plant),
                      again: kind == :go && holds?(removal) ? @projection.grown_back(facts.date) : nil)
        end

        def kind_of(reasons)
          worst = reasons.max_by(&:weight)
          worst.nil? || worst.kind == :note ? :go : worst.kind
        end

        # A wait ends on the first later day when no rule objects; where none can be told, since rain decides, when its
        # window usually opens. When none comes within a year, it is a no.
        def settle(removal, reasons)
          kind = kind_of(reasons)
          return [kind, nil] unless kind == :wait

          finish = docket(removal).first_open(@projection.turns) || usually_opens(removal)
          finish ? [:wait, finish] : [:no, nil]
        end

        def usually_opens(removal)
          usual_years.lazy.flat_map { |windows| windows.of(removal) }.map(&:from).find { |from| from > facts.date }
        end

        # The windows of this season-year and of the next.
        def usual_years
          next_year = facts.with(date: site.year(facts.date).finish + 1, stage: nil, soil: nil)
          @usual_years ||= [facts, next_year].map { |from| Windows.new(from, site) }
        end

        # A wait says until when, where waiting is the answer; beside a no it would end nothing.
        def dated(removal, reasons, kind)
          reasons.map do |reason|
            next reason unless kind == :wait && reason.kind == :wait

            reason.with(until: docket(removal).released(facts.rules.named(reason.rule), @projection.turns))
          end.sort_by.with_index { |reason, n| [-reason.weight, n] }.freeze
        end

        # The last day of the stretch that is open now: by the forecast, else by the window of the year; nil where
        # nothing shuts it.
        def closing(removal)
          shut = ((facts.date + 1)..site.horizon).find { |date| docket(removal).objection(date) }
          return shut - 1 if shut

          windows(removal).find { |window| facts.date.between?(window.from, window.to) && window.closes }&.to
        end

        # Is it asked to hold the plant down, and does the method do that?
        def holds?(removal) = facts.holding? && removal.holds?(facts.plant)

        def order(verdict)
          [ORDER.fetch(verdict.kind), holds?(verdict.removal) ? 0 : 1, verdict.removal.removes? ? 0 : 1,
           verdict.until || facts.date, *verdict.order, verdict.named ? 0 : 1]
        end
      end
    end
  end
end
