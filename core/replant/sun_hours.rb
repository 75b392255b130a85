# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Hours of direct sun that a slope gets in a day, by the sun's own path, and what leaves let through of them.
      # A ray that comes in low goes through more leaves: a canopy that covers the share c of the sky overhead lets
      # (1 - c)^(1/sin h) of the rays from the height h through (Beer and Lambert over an even canopy; recalled).
      class SunHours
        STEP = 5 # minutes
        FULL, SOME = 6.0, 3.0 # hours a day: full sun from, part shade from (common practice)
        Day = Value.define(:open, :through)

        # latitude, slope and aspect (downhill, from north over east) in degrees; canopy: the share of sky overhead
        # that leaves cover, 0..1. Raises BadInput (field :canopy, :slope or :latitude).
        def initialize(latitude:, slope: 0.0, aspect: 0.0, canopy: 0.0)
          { latitude: -90..90, slope: 0..90, canopy: 0..1 }.each do |field, range|
            value = { latitude:, slope:, canopy: }.fetch(field)
            next if value && range.cover?(value)

            raise BadInput.new("This is from #{range.first} to #{range.last}.", field:)
          end
          @latitude, @slope, @aspect = [latitude, slope, aspect || 0.0].map { |angle| angle * Math::PI / 180 }
          @gap = 1.0 - canopy
        end

        # A Day, hours, on a date.
        def on(date)
          declination, = Season::Sun.position(date.jd)
          open = through = 0.0
          (STEP / 2.0).step(1440, STEP) do |minute|
            ray = ray(declination, ((minute / 4.0) - 180) * Math::PI / 180)
            next unless ray[2].positive? && lit?(ray)

            open += STEP / 60.0
            through += STEP / 60.0 * (@gap**(1 / ray[2]))
          end
          Day.new(open:, through:)
        end

        # The mean Day of a growing season.
        def season(from, last)
          days = from.step(last, 10).map { |date| on(date) }
          Day.new(open: days.sum(&:open) / days.size, through: days.sum(&:through) / days.size)
        end

        # What so many hours are called.
        def self.light(hours)
          return "sun" if hours >= FULL

          hours >= SOME ? "part" : "shade"
        end

        private

        # Where the sun stands, as a ray towards it: east, north, up.
        def ray(declination, angle)
          across, up = Math.cos(declination), Math.sin(declination)
          south = across * Math.cos(angle)
          [-across * Math.sin(angle), (up * Math.cos(@latitude)) - (south * Math.sin(@latitude)),
           (up * Math.sin(@latitude)) + (south * Math.cos(@latitude))]
        end

        def lit?((east, north, up))
          normal = @normal ||= [Math.sin(@slope) * Math.sin(@aspect), Math.sin(@slope) * Math.cos(@aspect),
                                Math.cos(@slope)]
          ((east * normal[0]) + (north * normal[1]) + (up * normal[2])).positive?
        end
      end
    end
  end
end
