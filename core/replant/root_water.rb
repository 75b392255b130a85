# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # The water that a new plant's roots can reach, a bucket that grows with them: rain fills it, plant and sun empty
      # it, someone waters it before it runs dry. Depths and shares are planning values (memory); what the weather could
      # take is FAO 56 (Hargreaves), handed in.
      class RootWater
        START, FULL, GROWS = 8.0, 45.0, 120.0 # cm that roots reach at first and in the end, and in how many days
        LITTLE, MUCH = 0.35, 0.8 # of reference evapotranspiration that it takes at first, and grown
        CALLS = 0.3 # of what the soil holds for plants, below which it is watered
        PER = 30.0 # cm of soil that knowledge/soils.yml speaks of

        attr_reader :fill, :age

        # texture: of knowledge/soils.yml; fill: of the soil that it is planted in, 0 to 1.
        def initialize(texture, fill: 1.0)
          @per_cm = Knowledge.shipped.soils.fetch(texture)["capacity_mm"] / PER
          @age = 0
          @fill = fill.clamp(0.0, 1.0)
          @holds = @per_cm * START
        end

        def thirsty? = @fill < CALLS

        # A day passes: mm of reference evapotranspiration and rain; ground: how full the soil is that roots grow into.
        def pass(takes, rain, ground)
          @age += 1
          grown = @age < GROWS ? @age / GROWS : 1.0
          holds = @per_cm * (START + ((FULL - START) * grown))
          lost = takes * (LITTLE + ((MUCH - LITTLE) * grown)) * (@fill < 0.5 ? @fill / 0.5 : 1.0)
          water = (@fill * @holds) + ((holds - @holds) * [ground, 1.0].min) + rain - lost
          @holds = holds
          @fill = (water / holds).clamp(0.0, 1.0)
        end

        # Someone fills it up; the mm that took.
        def water
          taken = (1.0 - @fill) * @holds
          @fill = 1.0
          taken
        end
      end
    end
  end
end
