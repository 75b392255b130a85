# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What is done to a stand from now on. kill: a Stages::Spread of what a visit kills of what it finds; visits a
      # year; stirred: is soil stirred, so that seed comes up at once? late: after seed fell; skips: years, counted from
      # 0, in which nobody comes; stops: year from which nobody comes any more, nil for never. hours, litres and money
      # are of one plant that is hit; look: hours of a visit whatever it finds; most: plants that a visit takes on at
      # most, since ground is worked as a whole, nil for each by itself; seedling: hours of one; whole: most hours that
      # seedlings of one visit take, since they are hoed as a whole.
      Strategy = Value.define(:key, :kill, :visits, :stirred, :late, :skips, :stops, :hours, :litres, :money,
                              :look, :most, :seedling, :whole, :tears, :wakes) do
        def tends?(year) = visits.to_i.positive? && !skips.to_a.include?(year) && (stops.nil? || year < stops)

        # Hours, litres and money of a year in which so many plants and seedlings were taken on, where visits were made:
        # arrays with a place for each future.
        def spent(hit, pulled, made, hour_cost)
          seedlings = Numo::DFloat.minimum(pulled * (seedling || 0.0), made * (whole || 0.0))
          hit = Numo::DFloat.minimum(hit, made * most) if most
          worked = (hit * (hours || 0.0)) + seedlings + (made * (look || 0.0))
          [worked, hit * (litres || 0.0), (worked * hour_cost) + (hit * (money || 0.0))]
        end
      end
    end
  end
end
