# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Which patches to treat by which method in which week, so that most harm is prevented inside the windows with the
      # hours, herbicide and money there are (SeasonProgramme, solved by HiGHS). A greedy plan stands beside it and
      # serves when the solver finds nothing better in time.
      #
      #   Plan.new(options, limits).solve  # => Solution
      class Plan
        # One way to do one part of a patch in one week: hours, litres, cost and gain are of that part; parts: how many
        # the patch is done in (one unless it takes more hours than a week has).
        Option = Value.define(:patch, :method, :week, :parts, :hours, :litres, :cost, :gain)
        # hours: crew hours of each week; litres, cost: of the season; labels: LabelCaps; the last three nil for none.
        Limits = Value.define(:hours, :litres, :cost, :labels) do
          def caps = labels || LabelCaps::NONE
        end
        # Holds a patch to be done, or keeps it out; by a method and in a week, or nil for any.
        Wish = Value.define(:patch, :method, :week) do
          # Is the Option one that the wish is about? A method or a week that it leaves open fits any.
          def of?(option)
            option.patch == patch && [nil, option.method].include?(method) && [nil, option.week].include?(week)
          end
        end
        # items: {Option => parts done}; bound: no plan prevents more; gap: how far below that it may be, 0 to 1; by:
        # :solver or :greedy; clashes: what makes the pins impossible, [[:window, :label, :hours,
        # :litres or :cost, patch or nil]].
        Solution = Value.define(:items, :gain, :bound, :greedy_gain, :by, :clashes) do
          def gap = bound.to_f.positive? ? [1 - (gain / bound), 0.0].max : 0.0
          def hours = items.sum { |option, parts| option.hours * parts }
          def litres = items.sum { |option, parts| option.litres * parts }
          def cost = items.sum { |option, parts| option.cost * parts }
        end
        EMPTY = Solution.new(items: {}, gain: 0.0, bound: 0.0, greedy_gain: 0.0, by: :greedy, clashes: [])

        SECONDS = 9.0
        SMALL = 1500 # options up to which the whole is solved at once, to the end
        CLOSE = 0.005 # relative gap at which a large one is done
        FIRST = 1.5 # seconds for what the relaxed plan leaves open
        MOST_WEEKS = 12 # that are tried for one more crew day
        EPSILON = 1e-6

        attr_reader :options, :limits

        # What {option => parts} prevents, and the seconds of a clock that nobody sets.
        def self.gain(items) = items.sum { |option, parts| option.gain * parts }
        def self.clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

        def initialize(options, limits, pins: [], bans: [])
          @pins, @limits = pins, limits
          @possible = options.select do |option|
            option.hours <= limits.hours[option.week] + EPSILON && bans.none? { |ban| ban.of?(option) }
          end
          @options = @possible.reject { |option| limits.caps.past?(option) }
          @patches = @options.map(&:patch) | pins.map(&:patch)
        end

        # The best plan found within some seconds.
        def solve(seconds: SECONDS)
          return EMPTY if @options.empty? && @pins.empty?
          return EMPTY.with(clashes:) if clashes.any?

          greedy = self.greedy
          solved, bound = best(clock + seconds)
          found = [solved, greedy].compact.max_by { |items| gain(items) } || programme.whole(seconds:, gap: 1.0).first
          return EMPTY.with(clashes: lifted) unless found

          Solution.new(items: found, gain: gain(found), bound: [bound, gain(found)].max,
                       greedy_gain: greedy ? gain(greedy) : 0.0,
                       by: found.equal?(greedy) ? :greedy : :solver, clashes: [])
        end

        # What takes most harm away for an hour comes first, each in its best week with room. nil when pins do not fit
        # so.
        def greedy
          room = SeasonRoom.new(@limits)
          @options.partition { |option| pinned?(option) }.each do |group|
            group.sort_by { |option| [-option.gain / [option.hours, 0.05].max, option.week] }
                 .each { |option| room.fill(option) }
          end
          room.items if @pins.all? { |pin| room.done?(pin.patch) }
        end

        # [week, gain] that some more hours in one week would bring at most, where they bring most; nil when nowhere.
        def one_more(hours)
          base, = relax
          return if base.nil?

          best = tight_weeks.map { |week| [week, with_hours(week, hours).relax.first.to_f - base] }.max_by(&:last)
          best if best && best.last > EPSILON
        end

        # [greatest gain that any plan can have, {option => share}, {option => what a whole of it would add}], from the
        # linear programme; nils when nothing is possible.
        def relax = @relax ||= @options.empty? ? [0.0, {}, {}] : programme.relaxed

        # Patches that were left out, and what keeps each out: [[patch, :window, :label or :room]].
        def left_out(items, all_patches)
          done, open, any = [items.keys, @options, @possible].map do |options|
            options.to_h { |option| [option.patch, true] }
          end
          why = ->(patch) { any[patch] ? :label : :window }
          all_patches.reject { |patch| done[patch] }.map { |patch| [patch, open[patch] ? :room : why[patch]] }
        end

        # What the pins clash with, found by lifting each limit in turn.
        def clashes
          @clashes ||= begin
            shut = @pins.map(&:patch).uniq - @options.select { |option| pinned?(option) }.map(&:patch)
            if shut.any? then shut.map { |patch| [held_by_label?(patch) ? :label : :window, patch] }
            else @pins.empty? || possible?(@limits) ? [] : lifted
            end
          end
        end

        private

        # Would a patch's pin hold, were it not for what labels allow?
        def held_by_label?(patch)
          pins = @pins.select { |pin| pin.patch == patch }
          @possible.any? { |option| pins.any? { |pin| pin.of?(option) } }
        end

        def pinned?(option) = @pins.any? { |pin| pin.of?(option) }
        def gain(items) = Plan.gain(items)
        def clock = Plan.clock

        def programme(options = @options, taken = {}, limits: @limits)
          SeasonProgramme.new(options, limits, patches: @patches, pins: @pins, taken:)
        end

        # [the best items found or nil, what no plan is better than]. A small one is solved to the end, if there is
        # time: then nothing is better. Else what was found is made better for as long as there is.
        def best(finish)
          bound, relaxed, slopes = relax
          if @options.size <= SMALL
            items, proved = programme.whole(seconds: (finish - clock) / 2, gap: 0.0)
            return [items, gain(items)] if proved
          end
          items ||= fix(relaxed, [FIRST, finish - clock].min)
          items = programme.whole(seconds: (finish - clock) / 2, gap: CLOSE).first unless keeps_pins?(items)
          return [nil, bound] unless items

          search = SeasonSearch.new(@options, @limits, slopes:, programme: method(:programme))
          [search.better(items, finish, enough: bound * (1 - CLOSE)), bound]
        end

        def keeps_pins?(items)
          room = SeasonRoom.new(@limits, items)
          @pins.all? { |pin| room.done?(pin.patch) }
        end

        # What the linear programme is sure of is kept; the rest is solved in the room that is left.
        def fix(relaxed, seconds)
          room = SeasonRoom.new(@limits)
          relaxed.each { |option, share| room.fill(option, (share + EPSILON).floor) }
          rest = @options.select { |option| room.fits?(option) }
          more, = programme(rest, room.items).whole(seconds:, gap: CLOSE) if rest.any?
          more ? room.items.merge(more) { |_, one, other| one + other } : room.items
        end

        def possible?(limits) = !programme(limits:).whole(seconds: SECONDS / 3, gap: 1.0).first.nil?

        # Limits without which the pins would fit; all of them when no single one is to blame.
        def lifted
          free = { hours: @limits.with(hours: [1e9] * @limits.hours.size), litres: @limits.with(litres: nil),
                   cost: @limits.with(cost: nil), label: @limits.with(labels: nil) }
          found = free.select { |_, limits| possible?(limits) }.keys
          (found.empty? ? free.keys : found).map { |limit| [limit, nil] }
        end

        # Weeks whose hours are nearly used up in the relaxed plan.
        def tight_weeks
          used = Hash.new(0.0)
          relax[1].each { |option, share| used[option.week] += option.hours * share }
          used.select { |week, hours| hours >= @limits.hours[week] - 0.01 }.keys.first(MOST_WEEKS)
        end

        def with_hours(week, more)
          hours = @limits.hours.dup
          hours[week] += more
          self.class.new(@options, @limits.with(hours:), pins: @pins)
        end
      end
    end
  end
end
