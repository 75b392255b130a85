# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A bucket for the top 30 cm of soil, where roots are pulled: rain fills it, evapotranspiration and drainage empty
      # it, snow lies on it until it melts, frozen ground sheds what falls. `fill` 1.0 is field capacity, 0 the wilting
      # point. What comes in = what goes out + what stays: see Flow.
      class Soil
        CLASSES = %i[dry moist wet saturated frozen].freeze
        MIDDLE = { dry: 0.15, moist: 0.7, wet: 1.05, saturated: 1.25, frozen: 1.0 }.freeze
        BRIM = 1.35
        EASY = 0.5 # of the water, which plants take without effort (FAO 56, equation 84, p = 0.5)
        SNOW_BELOW = 0.5 # °C of the day's mean (memory)
        MELT = 3.0 # mm of water for each degree above zero (memory)
        SLOW = 0.3 # of its texture's drainage, where water leaves it badly (memory)
        FROZEN = -1.0 # °C of the air, followed over five days (memory)

        # One day's water, mm: rain = evapotranspiration + drainage + runoff + change; felt is what a person's feel of
        # the soil added. `by` names the equation of evapotranspiration.
        Flow = Value.define(:rain, :evapotranspiration, :drainage, :runoff, :change, :felt, :by)

        attr_reader :capacity, :snow

        # A texture of knowledge/soils.yml; elevation in metres; poorly_drained: does water leave it badly?
        def initialize(texture:, latitude:, elevation: nil, fill: 0.8, poorly_drained: false)
          kind = Knowledge.shipped.soils.fetch(texture)
          @capacity, @drains = kind["capacity_mm"].to_f, kind["drains"] * (poorly_drained ? SLOW : 1)
          @latitude, @elevation = latitude, elevation || 0.0
          @water = fill * capacity
          @snow = 0.0
          @warmth = 10.0
          @outer = {}
        end

        def fill = @water / capacity

        # Takes one Day in and answers its class. felt: a class that someone felt that day, which counts from then on.
        def pass(day, felt: nil)
          @warmth += (day.tmean - @warmth) / 5
          @before, @rain = @water + @snow, day.rain || 0.0
          shed = let_in(day)
          @by, @lost = evapotranspiration(day)
          @drained = drain
          @runoff = shed + run_off
          @added = felt ? feel(felt) : 0.0
          felt || kind
        end

        # Where the last day's water went.
        def flow
          Flow.new(rain: @rain, evapotranspiration: @lost, drainage: @drained, runoff: @runoff, felt: @added, by: @by,
                   change: @water + @snow - @before - @added)
        end

        def kind = frozen? ? :frozen : self.class.kind(fill)
        def frozen? = @warmth < FROZEN

        # The class of a fill, 0 dry to 1 at field capacity and above (planning values, memory).
        def self.kind(fill)
          if fill < 0.35 then :dry
          elsif fill < 0.98 then :moist
          elsif fill < 1.15 then :wet
          else :saturated
          end
        end

        private

        # Answers what frozen ground sheds at once.
        def let_in(day)
          melted = day.tmean.positive? ? [@snow, MELT * day.tmean].min : 0.0
          snowing = day.tmean <= SNOW_BELOW
          @snow += (snowing ? day.rain || 0.0 : 0.0) - melted
          liquid = melted + (snowing ? 0.0 : day.rain || 0.0)
          return liquid if frozen?

          @water += liquid
          0.0
        end

        def evapotranspiration(day)
          return [nil, 0.0] if frozen? || @snow.positive?

          by, reference = reference(day)
          lost = [reference * [fill / EASY, 1].min, @water].min
          @water -= lost
          [by, lost]
        end

        # Penman–Monteith where wind and humidity were measured, else Hargreaves.
        def reference(day)
          outer = @outer[day.date.yday] ||= Sun.radiation(@latitude, day.date.yday)
          return [:hargreaves, Sun.hargreaves(outer, day.tmin, day.tmax)] unless day.wind && day.humidity

          air = { tmin: day.tmin, tmax: day.tmax, wind: day.wind, humidity: day.humidity, radiation: day.radiation }
          [:penman_monteith, Sun.penman_monteith(outer, **air, elevation: @elevation)]
        end

        def drain
          over = [@water - capacity, 0.0].max * (frozen? ? 0 : @drains)
          @water -= over
          over
        end

        # What the brim does not hold.
        def run_off
          over = [@water - (BRIM * capacity), 0.0].max
          @water -= over
          over
        end

        # Sets the water to the middle of what was felt, where the bucket thinks otherwise. Answers what that added.
        def feel(kind)
          return 0.0 if kind == self.kind || kind == :frozen

          before = @water
          @water = MIDDLE.fetch(kind) * capacity
          @water - before
        end
      end
    end
  end
end
