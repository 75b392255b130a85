# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # What a planting asks for in its first years: new stock looked over for weeds that came with it, a meadow mown in
      # its first year, a count of what lives. Days are common practice.
      class FirstYears
        # key: told apart within its planting; since: what asks for it; closes: :planted or :counted, the record that
        # makes it besides a person's word; nil for that word alone.
        Care = Value.define(:key, :due_on, :text, :since, :closes)
        ARRIVAL = "Look the stock over for weeds as it arrives, before it is planted"
        LOOKED = "Look the new plants over: weeds come with nursery stock"
        COUNTED = "Count what lives of the planting"
        LOOK, COUNT = 14, 365 # days after planting
        MOWN = [45, 75, 105].freeze # days after leaves unfold

        # seed: is it sown? comes_on: the day on which stock is due, nil for none; planned_on: the day of the plan;
        # planted_on: [Date] on which some of it went in; heights: [to, at] of a first mowing, in words.
        def initialize(site, seed:, comes_on:, planned_on:, planted_on:, heights:)
          @site, @seed, @comes_on, @planned_on, @planted_on, @heights = site, seed, comes_on, planned_on, planted_on,
                                                                        heights
        end

        # [Care], the soonest first.
        def cares = (arrival + @planted_on.flat_map { |date| first_summer(date) + [count(date)] }).sort_by(&:due_on)

        private

        def arrival
          return [] if @seed || @comes_on.nil?

          [Care.new(key: "arrival", due_on: [@comes_on, @planned_on].max, text: ARRIVAL, since: @planned_on,
                    closes: :planted)]
        end

        def first_summer(date)
          return mowing(date) if @seed

          [Care.new(key: "look:#{date}", due_on: date + LOOK, text: LOOKED, since: date, closes: nil)]
        end

        def count(date)
          Care.new(key: "count:#{date}", due_on: date + COUNT, text: COUNTED, since: date, closes: :counted)
        end

        def mowing(date)
          start = growing?(date) ? date : leaf_out(date)
          text = "Mow the sowing to #{@heights[0]} when it stands #{@heights[1]} high, before weeds seed"
          MOWN.map.with_index(1) do |days, n|
            Care.new(key: "mow#{n}:#{date}", due_on: start + days, text:, since: date, closes: nil)
          end
        end

        # Was it sown while it grows, early enough to be mown in the same season?
        def growing?(date)
          year = @site.year(date)
          from, to = %i[leaf_out first_frost].map { |mark| year.moment(mark)&.date }
          from && date >= from && date + MOWN.last <= (to || (year.start + 364))
        end

        # Of the first growing season after sowing.
        def leaf_out(date)
          [@site.year(date), @site.year(date >> 12)].filter_map { |year| year.moment(:leaf_out)&.date }
                                                    .find { |day| day >= date } || (date + 60)
        end
      end
    end
  end
end
