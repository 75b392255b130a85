# frozen_string_literal: true

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

          programme = Programme.new
          taken = @candidates.to_h { |one| [programme.column(worth: one.worth), one.hours] }
          programme.row(taken, high: @hours)
          answer = programme.solve(seconds: 2.0) or return []
          @candidates.zip(answer.values).select { |_, chosen| chosen.round == 1 }.map(&:first)
        end
      end
    end
  end
end
