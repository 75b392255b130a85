# frozen_string_literal: true

require "highs"

module Thistle
  module Core
    module Recheck
      # Which quiet patches to look at with the hours there are: those that together save the most (a knapsack in
      # HiGHS).
      class LookRound
        # id; hours of a look; worth: what it saves.
        Candidate = Value.define(:id, :hours, :worth)

        # Raises BadInput (field :hours) for hours that cannot be.
        def initialize(candidates, hours)
          unless hours.is_a?(Numeric) && hours.to_f.finite? && hours >= 0
            raise BadInput.new("Crew hours are 0 or more.", field: :hours)
          end

          @candidates, @hours = candidates.select { |one| one.worth.positive? && one.hours <= hours }, hours.to_f
        end

        # [Candidate], in the order in which they were given.
        def chosen
          return @candidates if @candidates.sum(&:hours) <= @hours

          size = @candidates.size
          answer = Highs.mip(sense: :maximize, col_cost: @candidates.map { |one| one.worth.to_f },
                             col_lower: [0.0] * size, col_upper: [1.0] * size, integrality: [:integer] * size,
                             row_lower: [0.0], row_upper: [@hours], a_format: :colwise,
                             a_start: (0...size).to_a, a_index: [0] * size,
                             a_value: @candidates.map { |one| one.hours.to_f }).solve(time_limit: 2.0)
          @candidates.zip(answer[:col_value]).select { |_, taken| taken.round == 1 }.map(&:first)
        end
      end
    end
  end
end
