# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Where a native is at home: its states, provinces or countries by name (recalled; a county atlas is still asked
      # for), the box and the climates that it grows in where its file says so.
      class Home
        # told: `home` of its file; regions: broad ones; within: a box, or nil.
        def initialize(told, regions, within: nil)
          @told, @regions, @within = told, regions, within
          freeze
        end

        # Is it at home at a Native::Place? Its broad region has to be right, and its state or country by name; where
        # the boundaries do not know the place, the region decides alone.
        def include?(place)
          @regions.include?(place.region) && named(place) && within?(place) && climate?(place)
        end

        # [names] of states or provinces in a country, by the keys of knowledge/places.yml; [] where it is not told by
        # them there.
        def parts(country) = list(country).to_a
        def countries = @told.fetch("countries", [])
        def source = @told["source"]

        private

        def list(country) = Knowledge.shipped.places[country]&.then { |told| @told[told["list"]] }

        def named(place)
          return true if place.country.nil?
          return countries.include?(place.country) unless Knowledge.shipped.places.key?(place.country)

          place.part.nil? || parts(place.country).include?(place.part)
        end

        def climate?(place)
          @told["climates"].nil? || place.climate.nil? || @told["climates"].include?(place.climate)
        end

        def within?(place)
          return true unless @within && place.latitude && place.longitude

          place.latitude.between?(@within["south"], @within["north"]) &&
            place.longitude.between?(@within["west"], @within["east"])
        end
      end
    end
  end
end
