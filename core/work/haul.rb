# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # What was cut, and what becomes of it: mass and bulk, loads of a tarp, trips, piles on site, bags
      # (knowledge/haul.yml).
      class Haul
        # kg, litres: of all of it; loads; minutes: of a pair hauling, one way and back for each load.
        Answer = Value.define(:kg, :litres, :loads, :person_hours, :piles_wanted, :piles_possible, :logs, :bags_whole,
                              :bags_stripped)
        FARTHEST_M = 5000.0

        # stems: {size => number}; ground_m2: of herbs and mats that were pulled; distance_m: to the pile. Raises
        # BadInput (by field).
        def initialize(stems:, ground_m2: 0.0, distance_m: 0.0, fruit: false, values: Knowledge.shipped.haul)
          @stems, @ground, @distance = stems.transform_keys(&:to_s), ground_m2, distance_m
          @fruit, @values = fruit, values
          refuse :distance, "is 0 to #{FARTHEST_M.round} m" unless distance_m&.between?(0, FARTHEST_M)
          refuse :stems, "are counted as 0 or more" if @stems.values.any?(&:negative?)
        end

        # The Answer.
        def answer
          Answer.new(kg: sum("kg"), litres: sum("litres"), loads:, person_hours:, logs:, piles_wanted:, piles_possible:,
                     bags_whole: @fruit ? bags(sum("litres")) : 0, bags_stripped: @fruit ? bags(of_stems("fruit")) : 0)
        end

        private

        def sum(what) = of_stems(what) + (@ground * @values["ground"].fetch(what))
        def of_stems(what) = @stems.sum { |size, count| count * @values["stems"].fetch(size).fetch(what) }.to_f

        # As many as the bulk or the weight asks for, whichever is more.
        def loads
          tarp = @values["tarp"]
          [sum("litres") / tarp["litres"], sum("kg") / tarp["kg"]].max.then { |count| (count - 1e-9).ceil }
        end

        def person_hours
          tarp = @values["tarp"]
          loads * tarp["people"] * ((2 * @distance / (tarp["km_h"] * 1000.0)) + (tarp["minutes"] / 60.0))
        end

        def logs = of_stems("logs").round

        # As much as a breast-high pile holds, in each.
        def piles_wanted
          pile = @values["pile"]
          holds = pile["height_m"] * (pile["side_m"]**2) * pile["filled"] * 1000
          ((sum("litres") / holds) - 1e-9).ceil
        end

        # As many as there are logs for: the largest below, a tight layer across them.
        def piles_possible = logs / (@values["pile"]["largest"] + @values["pile"]["cross"])

        def bags(litres) = ((litres / @values["bag"]["litres"]) - 1e-9).ceil
        def refuse(field, message) = raise(BadInput.new(message, field:))
      end
    end
  end
end
