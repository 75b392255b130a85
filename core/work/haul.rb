# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # What was cut, and what becomes of it: mass and bulk, loads of a tarp, piles on site, bags, trips of a trailer
      # (knowledge/haul.yml).
      class Haul
        # kg, litres: of all of it; loads; minutes: of a pair hauling, one way and back for each load.
        Answer = Value.define(:kg, :litres, :loads, :person_hours, :piles_wanted, :piles_possible, :logs, :bags_whole,
                              :bags_stripped, :trips)
        FARTHEST_M = 5000.0
        # What a vehicle takes: kg, and litres of loose brush; nil where it is not typed.
        Trailer = Value.define(:kg, :litres)

        # stems: {size => number}; ground_m2: of what was pulled, kind: what that is (a key of haul.yml's ground);
        # distance_m: to the pile; trailer: Trailer. Raises BadInput (by field).
        def initialize(stems:, ground_m2: 0.0, kind: "herbs", distance_m: 0.0, fruit: false, trailer: nil,
                       values: Knowledge.shipped.haul)
          @stems, @ground, @distance = stems.transform_keys(&:to_s), ground_m2, distance_m
          @fruit, @values, @trailer = fruit, values, trailer
          @lies = values["ground"].fetch(kind) { refuse :kind, "is no kind of growth here" }
          refuse :trailer, "is above 0" if trailer&.kg && !trailer.kg.positive?
          refuse :distance, "is 0 to #{FARTHEST_M.round} m" unless distance_m&.between?(0, FARTHEST_M)
          refuse :stems, "are counted as 0 or more" if @stems.values.any?(&:negative?)
        end

        TALL_CM, MOSTLY = 180, %w[always usually].freeze
        # What a plant that is pulled is hauled as: a key of haul.yml's ground.
        def self.kind_of(plant)
          return afloat?(plant) ? "floating" : "submersed" if plant.aquatic?
          return "tussocks" if plant.is?(:tussock)
          return "mats" if %i[mat vine].include?(plant.form)

          plant.characters.fetch("height", {}).fetch("high", 0) > TALL_CM ? "tall" : "herbs"
        end

        def self.afloat?(plant)
          floats = plant.characters.fetch("floats", {}).slice("swollen", "leaves").values
          floats.intersect?(MOSTLY) && !plant.is?(:fragments_root)
        end
        private_class_method :afloat?

        # The Answer.
        def answer
          Answer.new(kg: sum("kg"), litres: sum("litres"), loads:, trips:, person_hours:, logs:,
                     piles_wanted:, piles_possible:,
                     bags_whole: @fruit ? bags(sum("litres"), sum("kg")) : 0,
                     bags_stripped: @fruit ? bags(of_stems("fruit")) : 0)
        end

        private

        def sum(what) = of_stems(what) + (@ground * @lies.fetch(what))
        def of_stems(what) = @stems.sum { |size, count| count * @values["stems"].fetch(size).fetch(what) }.to_f

        # As many as the bulk or the weight asks for, whichever is more.
        def loads
          tarp = @values["tarp"]
          [sum("litres") / tarp["litres"], sum("kg") / tarp["kg"]].max.then { |count| (count - 1e-9).ceil }
        end

        # Of the trailer, by weight or by bulk, whichever is more; nil without one.
        def trips
          return unless @trailer

          [(sum("kg") / @trailer.kg if @trailer.kg), (sum("litres") / @trailer.litres if @trailer.litres)]
            .compact.max&.then { |count| (count - 1e-9).ceil }
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

        # As many as can be carried, too.
        def bags(litres, kilos = 0)
          bag = @values["bag"]
          ([litres / bag["litres"], kilos / bag["kg"].to_f].max - 1e-9).ceil
        end

        def refuse(field, message) = raise(BadInput.new(message, field:))
      end
    end
  end
end
