# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # How much to bring along: what costs least in expectation, weighing what is left over against walking back for
      # more, from how much stems take (Usage). Never less than what is to be mixed.
      class BatchSize
        Point = Value.define(:ml, :cost, :enough, :left_ml)
        STEPS = 160

        # stems, or hundreds of m²; usage: Usage of each; litre: what a litre of mix costs, getting rid of it and all;
        # walk: what going back once costs, for as much as is then known to be wanted; least: mL that are brought
        # anyway.
        def initialize(stems:, usage:, litre:, walk:, least: 0)
          @stems, @usage, @litre, @walk, @least = stems, usage, litre.to_f, walk.to_f, least.to_f
        end

        # The Point of least cost.
        def best = points.min_by(&:cost)

        # Points along the batches worth looking at, from what a good day takes to what hardly any exceeds.
        def points
          @points ||= begin
            from, to = [0.02, 0.995].map { |share| [@stems * @usage.quantile(share), @least].max }
            Array.new(STEPS + 1) { |n| point(from + ((to - from) * n / STEPS)) }.freeze
          end
        end

        private

        def point(millilitres)
          enough = @usage.cumulative(millilitres / @stems)
          left_ml = left(millilitres, enough)
          Point.new(ml: millilitres, enough:, left_ml:, cost: (left_ml / 1000 * @litre) + ((1 - enough) * @walk))
        end

        # mL left over in expectation, of a log-normal need: b Φ(z) − E[need; need below b].
        def left(millilitres, enough)
          middle, spread = Math.log(@stems) + @usage.middle, @usage.spread
          below = Math.exp(middle + ((spread**2) / 2)) *
                  Normal.cumulative(((Math.log(millilitres) - middle) / spread) - spread)
          [(millilitres * enough) - below, 0.0].max
        end
      end
    end
  end
end
