# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Makes a plan of many patches better: some weeks are emptied and filled anew, as well as HiGHS can in a moment,
      # again and again. Only options are tried that the relaxed plan does not find much worse than its own.
      class SeasonSearch
        WEEKS = [3, 5, 8].freeze # emptied at a time, in turn
        SECONDS = 0.4 # for each filling
        NEAR = 0.05 # of its gain, what an option may lose against the relaxed plan
        CLOSE = 0.0005 # relative gap at which a filling is done

        # options: [Plan::Option]; slopes: {option => what a whole of it would add to the relaxed plan, mostly a loss};
        # programme: answers a SeasonProgramme of some options, given what is taken.
        def initialize(options, limits, slopes:, programme:, seed: 1)
          @limits, @programme = limits, programme
          near = options.select { |option| slopes.fetch(option, 0.0) >= -NEAR * option.gain }
          @by_week = near.group_by(&:week)
          @random = Random.new(seed)
        end

        # {option => parts} that gain as much as those given, or more; it ends by the clock, or with what is enough.
        def better(items, finish, enough:)
          return items if @by_week.empty?

          WEEKS.cycle do |count|
            left = finish - Plan.clock
            return items if left < SECONDS / 4 || Plan.gain(items) >= enough

            found = refilled(items, @by_week.keys.sample(count, random: @random), [SECONDS, left].min)
            items = found if Plan.gain(found) > Plan.gain(items)
          end
        end

        private

        def refilled(items, weeks, seconds)
          out, kept = items.partition { |option, _| weeks.include?(option.week) }.map(&:to_h)
          room = SeasonRoom.new(@limits, kept)
          open = (weeks.flat_map { |week| @by_week[week] } | out.keys).select { |option| room.fits?(option) }
          found, = @programme.call(open, kept).whole(seconds:, gap: CLOSE) if open.any?
          found ? kept.merge(found) { |_, one, other| one + other } : items
        end
      end
    end
  end
end
