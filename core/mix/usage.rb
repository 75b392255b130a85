# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # How much mix a stem of a size takes with a method: a planning value, until the group's own records speak.
      # Log-normal: records of mL a stem pull the middle and the spread away from what was planned.
      class Usage
        SPREAD = 0.5 # standard deviation of log mL a stem, from one day's work to the next (memory)
        WEIGHT = 3.0 # records that the planning value counts for
        ENOUGH = 5 # records from which they count at all

        attr_reader :planned_ml, :seen

        # planned_ml: a stem; seen: [mL a stem], one for each record.
        def initialize(planned_ml, seen = [])
          @planned_ml, @seen = planned_ml, seen.select(&:positive?)
          freeze
        end

        def count = seen.size
        def own? = count >= ENOUGH

        # mL a stem: the middle, and any other share of days below it.
        def median = Math.exp(middle)
        def quantile(share) = Math.exp(middle + (spread * Normal.quantile(share)))

        # Four days of five lie between them.
        def low = quantile(0.1)
        def high = quantile(0.9)

        # The same spread of days around another middle, mL a stem: what was typed goes before what was seen.
        def about(millilitres)
          return Usage.new(millilitres) unless own?

          Usage.new(millilitres, seen.map { |one| one * millilitres / Math.exp(mean) })
        end

        # Share of days on which a stem takes no more than so many mL.
        def cumulative(millilitres) = Normal.cumulative((Math.log(millilitres) - middle) / spread)

        # Mean of the logs, the planning value counting for WEIGHT records.
        def middle = ((WEIGHT * Math.log(planned_ml)) + logs.sum) / (WEIGHT + logs.size)

        # Spread of the next day's log: of days among themselves, and of not knowing their middle.
        def spread
          within = (WEIGHT * (SPREAD**2)) + logs.sum { |log| (log - mean)**2 }
          Math.sqrt(within / (WEIGHT + [logs.size - 1, 0].max) * (1 + (1 / (WEIGHT + logs.size))))
        end

        private

        def logs = own? ? seen.map { |one| Math.log(one) } : []
        def mean = logs.empty? ? 0.0 : logs.sum / logs.size
      end
    end
  end
end
