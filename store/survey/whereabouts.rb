# frozen_string_literal: true

module Thistle
  module Store
    # Process: finds which country and state a property lies in, by the boundaries that are shipped, and keeps it in its
    # columns, so that no page has to look.
    module Whereabouts
      class << self
        # -> { Core::Survey::Borders }, set where the application is put together; nil where no boundaries are at hand.
        attr_accessor :borders
      end

      module_function

      # {country:, part:} of a place; nils where it is not found.
      def at(longitude, latitude)
        return { country: nil, part: nil } unless Whereabouts.borders && longitude && latitude

        drawn.at(longitude, latitude).to_h
      end

      # Is the sea in sight of a place? nil where nobody can say.
      def sea?(longitude, latitude)
        drawn.by_sea?(longitude, latitude) if Whereabouts.borders && longitude && latitude
      end

      # What usually goes with a place: a Core::Survey::Home.
      def home(longitude, latitude, height: nil)
        found = Core::Survey::Borders::Whereabouts.new(**at(longitude, latitude))
        Core::Survey::Home.new(found, [longitude, latitude], height:, sea: sea?(longitude, latitude))
      end

      # The region that a property lies in by its place, where it is set to another or to none; nil else.
      def other_region(property)
        return unless property.placed

        found = home(property.longitude, property.latitude).region
        found unless found == property.region
      end

      # The usual weather of a place as JSON, for its property; of: region and climate.
      def weather(longitude, latitude, height: nil, **of)
        JSON.generate(Core::Season::BroadWeather.at(latitude, longitude, height:, sea: sea?(longitude, latitude), **of))
      end

      def drawn = @drawn ||= Whereabouts.borders.call

      # Of all properties that nobody looked for yet.
      def settle_all
        Property.where(country: nil).all.each do |one|
          found = at(one.longitude, one.latitude)
          one.update(found) if found[:country]
        end
      end

      # As natives are judged by it.
      def place(property, climate: nil)
        Core::Replant::Native::Place.new(region: property.region, latitude: property.latitude,
                                         longitude: property.longitude, climate:, country: property.country,
                                         part: property.part)
      end

      # "Missouri, United States of America"; nil where it is not known.
      def said(property)
        name = Core::Knowledge.shipped.places.dig(property.country, "names", property.part)
        property.country && [name, property.country].compact.join(", ")
      end
    end
  end
end
