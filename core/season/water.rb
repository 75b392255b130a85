# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A pond or a lake's edge, a few metres deep: its temperature follows the air over two weeks, ice grows and melts
      # by degree days. Planning values (memory).
      class Water
        FOLLOWS = 14.0 # days
        GROWS = 27.0 # mm for the square root of a freezing degree day
        MELTS = 8.0 # mm for each degree above zero
        COVERS = 20.0 # mm of ice that count as covered

        attr_reader :temperature, :ice

        def initialize(temperature:)
          @temperature, @ice = temperature.to_f, 0.0
        end

        # Takes one Day in.
        def pass(day)
          @temperature += (day.tmean - @temperature) / FOLLOWS
          @ice = if @temperature.negative? && day.tmean.negative?
                   Math.sqrt((@ice**2) + ((GROWS**2) * -day.tmean))
                 else
                   [@ice - (MELTS * [day.tmean, 0].max), 0.0].max
                 end
          @temperature = [@temperature, 0.0].max if @ice.zero? && day.tmean.positive?
          self
        end

        def covered? = ice >= COVERS
      end
    end
  end
end
