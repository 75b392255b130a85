# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What a sprayer puts on the ground, measured: litres on a hectare. Each way answers the same number.
      module Calibration
        # A square or strip whose fluid ounces are gallons on an acre: 43 560 ÷ 128 square feet.
        PLOT_M2 = Quantity::ACRE / 128
        FASTEST_KM_H, WIDEST_M, MOST_L_PER_HA = 30.0, 40.0, 20_000.0
        WORN = 0.1 # a nozzle that gives a tenth more or less than it is rated for is changed (common practice)

        # mean: what all of them together put on the ground; apart: the span between them, a share of the mean; off: how
        # far each is off it.
        Team = Value.define(:each, :mean, :apart, :off) do
          # Is anyone a tenth or more off what the others put down?
          def uneven? = off.any? { |share| share.abs > WORN + 1e-9 }
        end

        module_function

        # From what was sprayed on a plot: mL and m².
        def plot(ml:, area_m2: PLOT_M2)
          positive(ml:, area: area_m2)
          checked((Quantity.of(ml, "mL") / Quantity.of(area_m2, "m²")).to("L/ha"))
        end

        # From a nozzle caught for a while, the pace, how far apart nozzles (or passes) are. Raises BadInput by field.
        def nozzle(ml:, seconds:, km_h:, spacing_m:)
          positive(ml:, seconds:, pace: km_h, spacing: spacing_m)
          refuse :pace, "Enter a pace of at most #{FASTEST_KM_H.round} km/h." if km_h > FASTEST_KM_H
          refuse :spacing, "Passes are not more than #{WIDEST_M.round} m apart." if spacing_m > WIDEST_M
          flow = Quantity.of(ml, "mL") / Quantity.of(seconds, "s")
          swept = Quantity.of(km_h, "km") / Quantity.of(1, "h") * Quantity.of(spacing_m, "m")
          checked((flow / swept).to("L/ha"))
        end

        # The pace, km/h, at which a nozzle of that flow puts so many litres on a hectare. Raises BadInput by field.
        def wanted_pace(litres_per_ha:, ml_min:, spacing_m:)
          positive(wanted: litres_per_ha, ml: ml_min, spacing: spacing_m)
          flow = Quantity.of(ml_min, "mL") / Quantity.of(1, "min")
          (flow / Quantity.of(litres_per_ha, "L/ha") / Quantity.of(spacing_m, "m") / Quantity.of(1, "km/h")).ratio
        end

        # The flow of a nozzle, mL in a minute, that puts litres on a hectare at a pace. Raises BadInput by field.
        def wanted_flow(litres_per_ha:, km_h:, spacing_m:)
          positive(wanted: litres_per_ha, pace: km_h, spacing: spacing_m)
          swept = Quantity.of(km_h, "km/h") * Quantity.of(spacing_m, "m")
          (Quantity.of(litres_per_ha, "L/ha") * swept * Quantity.of(1, "min")).to("mL")
        end

        # km/h of a pace: metres in seconds, the middle of several runs. Raises BadInput (field :distance or :runs).
        def pace(metres, runs)
          positive(distance: metres)
          refuse :runs, "Time at least one run." if runs.empty?
          positive(runs: runs.min)
          (Quantity.of(metres, "m") / Quantity.of(middle(runs), "s") / Quantity.of(1, "km/h")).ratio
        end

        # Several people on one patch, litres on a hectare each: Team. Raises BadInput (field :team) for fewer than two.
        def team(each)
          refuse :team, "Type at least two people's." if each.size < 2
          mean = each.sum / each.size
          Team.new(each:, mean:, apart: (each.max - each.min) / mean, off: each.map { |one| (one / mean) - 1 })
        end

        # How far a nozzle is off its rated flow: [share, :worn or :blocked or :good].
        def wear(caught_ml_min, rated_ml_min)
          positive(caught: caught_ml_min, rated: rated_ml_min)
          off = (caught_ml_min / rated_ml_min) - 1
          [off, off.abs <= WORN ? :good : { true => :worn, false => :blocked }[off.positive?]]
        end

        # Of an even number the mean of the two in the middle.
        def middle(runs)
          sorted = runs.sort
          (sorted[(sorted.size - 1) / 2] + sorted[sorted.size / 2]) / 2.0
        end

        def checked(litres_per_ha)
          return litres_per_ha if litres_per_ha <= MOST_L_PER_HA

          refuse :ml, "#{litres_per_ha.round} L on a hectare is a flood: did you mean fluid ounces or mL?"
        end

        def positive(**given)
          given.each { |field, number| refuse(field, "is above 0") unless number&.positive? }
        end

        def refuse(field, message) = raise(BadInput.new(message, field:))
        private_class_method :middle, :checked, :positive, :refuse
      end
    end
  end
end
