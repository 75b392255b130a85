# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Visits that one walk makes: near each other, and right on the same day.
      class VisitRounds
        # id; from and to: days on which it is answered; at: [lon, lat].
        Visit = Value.define(:id, :from, :to, :at)
        # on: a day that is right for each of its visits.
        Round = Value.define(:on, :visits)
        REACH_M = 400.0 # between any two of a round (memory)

        def initialize(visits)
          @visits = visits.sort_by { |visit| [visit.to, visit.id] }
        end

        # [Round], the soonest first; a visit that goes with none is a round of its own. Each day is the last on which
        # its most pressing visit is right.
        def rounds
          left, found = @visits, []
          until left.empty?
            first, *others = left
            with = others.select { |one| one.from <= first.to }.reduce([first]) do |round, one|
              round.all? { |other| apart(other, one) <= REACH_M } ? [*round, one] : round
            end
            found << Round.new(on: first.to, visits: with)
            left -= with
          end
          found.sort_by(&:on)
        end

        private

        def apart(one, other) = Degrees.apart(one.at, other.at)
      end
    end
  end
end
