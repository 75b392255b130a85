# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # The year's review of a property: the last season that is over, or the one that the address names.
      class ReviewBoard
        YEARS = 12 # that can be chosen
        VERDICTS = { better: "better than the handbook", worse: "worse than the handbook's worst",
                     as_planned: "as the handbook says" }.freeze

        attr_reader :property, :year

        def initialize(params, property, today)
          @property, @today = property, today
          asked = Whole.read(params["year"])
          @year = years.include?(asked) ? asked : years.first
        end

        # Years by the one in which they begin, this one first.
        def years
          first = @property.site(@today).year(@today).start.year
          @years ||= (0...YEARS).map { |n| first - n }
        end

        def range
          start = @property.site(@today).year(@today).start
          from = Date.new(year, start.month, start.day)
          from..((from >> 12) - 1)
        end

        # Is it the year that runs?
        def running? = range.cover?(@today)
        def review = @review ||= Store::Review.new(property, range, @today)

        # Patches on which work is wanted now.
        def wanting = review.states.values_at(*Store::Patch::WANTING).compact.sum

        # The address of next season's plan, with this year's hours a week as a beginning.
        def plan_address
          hours = [review.worked.hours / 20, 1].max.round # about twenty weeks of a season
          "/decide/plan?hours=#{hours}"
        end

        # "0:42 a stem" in minutes.
        def per_stem(hours) = hours && "#{(hours * 60).round(hours < 0.1 ? 1 : 0).to_s.delete_suffix(".0")} min"
      end
    end
  end
end
