# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # Chips and cardboard over ground that was opened: how much to have delivered, and where it lies too thin.
      class Mulch
        DEEPEST_CM = 60.0
        THIN = 0.8 # of the depth that was asked for: less is thin (memory)

        # Raises BadInput (by field).
        def initialize(area_m2:, depth_cm:)
          refuse :area, "is above 0" unless area_m2&.positive?
          refuse :depth, "is above 0 and at most #{DEEPEST_CM.round} cm" unless depth_cm&.positive? &&
                                                                                depth_cm <= DEEPEST_CM
          @area, @depth = area_m2, depth_cm
        end

        # m³ as delivered.
        def volume_m3 = @area * @depth / 100

        # Sheets of cardboard, m by m, laid over each other by so much on every side. Raises BadInput
        # (field :overlap).
        def sheets(width_m:, height_m:, overlap_m:)
          refuse :overlap, "is less than a sheet is wide" unless overlap_m < [width_m, height_m].min
          ((@area / ((width_m - overlap_m) * (height_m - overlap_m))) - 1e-9).ceil
        end

        # Depths that were sampled, cm: [mean, numbers (from 1) of those that are too thin, m³ that are missing in all].
        # Raises BadInput (field :depths) where there is none.
        def sampled(depths)
          refuse :depths, "want one sample at least" if depths.empty?
          mean = depths.sum / depths.size.to_f
          thin = depths.each_index.select { |n| depths[n] < @depth * THIN }.map { |n| n + 1 }
          short = depths.sum { |depth| [@depth - depth, 0.0].max } / depths.size.to_f
          [mean, thin, @area * short / 100]
        end

        private

        def refuse(field, message) = raise(BadInput.new(message, field:))
      end
    end
  end
end
