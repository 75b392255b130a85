# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # Which country a place lies in, and which state, province or territory of it.
      class Borders
        # country: as the boundaries name it; part: a key of knowledge/places.yml; nil where none is found.
        Whereabouts = Value.define(:country, :part)
        NOWHERE = Whereabouts.new.freeze
        REACH = 0.15 # degrees: a place that lies off a drawn coast belongs to what is that near

        # states, and countries where no state holds a place: each answers {name => [[ring of [longitude, latitude]]]};
        # parts: as knowledge/places.yml has them, with rough shapes where there are no states.
        def initialize(countries:, states:, parts: Knowledge.shipped.places)
          @draw_countries, @draw_states, @parts = countries, states, parts
        end

        # The Whereabouts of a place.
        def at(longitude, latitude)
          within_state(longitude, latitude) || within_country(longitude, latitude)
        end

        # Is the sea in sight: does any of it lie within some 30 km of a place?
        def by_sea?(longitude, latitude)
          here = 1 / Math.cos(latitude * Math::PI / 180)
          COMPASS.any? do |angle|
            east, north = Math.sin(angle) * SEA_DEGREES * here, Math.cos(angle) * SEA_DEGREES
            !on_land?(longitude + east, latitude + north)
          end
        end

        private

        SEA_DEGREES = 0.27 # of latitude: some 30 km
        COMPASS = Array.new(12) { |n| n * Math::PI / 6 }.freeze
        private_constant :SEA_DEGREES, :COMPASS

        def on_land?(longitude, latitude)
          countries.any? do |_, rings, (west, east), (south, north)|
            longitude.between?(west, east) && latitude.between?(south, north) &&
              rings.count { |ring| inside?(ring, longitude, latitude) }.odd?
          end
        end

        def states = @states ||= boxed(@draw_states.call)
        def countries = @countries ||= boxed(@draw_countries.call)

        def within_state(longitude, latitude)
          name = name_at(states, longitude, latitude, reach: 0.0) or return
          country, told = @parts.find { |_, one| one["names"].value?(name) }
          country && Whereabouts.new(country:, part: told["names"].key(name))
        end

        def within_country(longitude, latitude)
          country = name_at(countries, longitude, latitude) or return NOWHERE
          told = @parts[country] or return Whereabouts.new(country:)
          return Whereabouts.new(country:, part: rough(told["shapes"], longitude, latitude)) if told["shapes"]

          Whereabouts.new(country:, part: told["names"].key(name_at(states, longitude, latitude)))
        end

        def rough(shapes, longitude, latitude)
          shapes.find { |_, ring| inside?(ring, longitude, latitude) }&.first
        end

        def boxed(areas)
          areas.flat_map do |name, polygons|
            polygons.map { |rings| [name, rings, rings.first.flat_map(&:first).minmax, rings.first.map(&:last).minmax] }
          end
        end

        # What it lies in, else what has a corner within reach.
        def name_at(areas, longitude, latitude, reach: REACH)
          near = areas.select do |_, _, (west, east), (south, north)|
            longitude.between?(west - reach, east + reach) && latitude.between?(south - reach, north + reach)
          end
          found = near.find { |_, rings| rings.count { |ring| inside?(ring, longitude, latitude) }.odd? }
          found ||= near.select { |_, rings| apart(rings.first, longitude, latitude) <= reach }
                        .min_by { |_, rings| apart(rings.first, longitude, latitude) }
          found&.first
        end

        def apart(ring, longitude, latitude) = ring.map { |x, y| Math.hypot(x - longitude, y - latitude) }.min

        # Even and odd crossings of a ray to the east.
        def inside?(ring, longitude, latitude)
          ring.each_index.count do |n|
            (x1, y1), (x2, y2) = ring[n - 1], ring[n]
            (y1 > latitude) != (y2 > latitude) && longitude < ((x2 - x1) * (latitude - y1) / (y2 - y1)) + x1
          end.odd?
        end
      end
    end
  end
end
