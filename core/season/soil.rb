# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A bucket for the top 30 cm of soil, where roots are pulled. Water above field capacity drains by half
      # a day; evapotranspiration (Sun) slows once half of the water is gone. `fill` 1.0 is field capacity.
      class Soil
        # Water that the top 30 cm holds for plants, mm (memory).
        CAPACITY_MM = { "sand" => 24, "loam" => 48, "clay" => 54 }.freeze
        CLASSES = %i[dry moist wet saturated frozen].freeze
        MIDDLE = { dry: 0.15, moist: 0.7, wet: 1.05, saturated: 1.25, frozen: 1.0 }.freeze
        BRIM = 1.35

        attr_reader :fill, :capacity

        def initialize(texture:, latitude:, fill: 0.8)
          @capacity = CAPACITY_MM.fetch(texture)
          @latitude = latitude
          @fill = fill
          @warmth = 10.0
        end

        # Takes one Day in and answers its class.
        def pass(day)
          @warmth += (day.tmean - @warmth) / 5
          water = (@fill * capacity) + day.rain - loss(day)
          water -= (water - capacity) / 2 if water > capacity
          @fill = (water / capacity).clamp(0, BRIM)
          kind
        end

        def kind = @warmth < -1 ? :frozen : self.class.kind(@fill)

        def self.kind(fill)
          if fill < 0.35 then :dry
          elsif fill < 0.98 then :moist
          elsif fill < 1.15 then :wet
          else :saturated
          end
        end

        private

        def loss(day)
          return 0 if @warmth < -1

          Sun.evapotranspiration(@latitude, day.date.yday, day.tmin, day.tmax) * [@fill / 0.5, 1].min
        end
      end
    end
  end
end
