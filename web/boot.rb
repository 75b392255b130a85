# frozen_string_literal: true

require "securerandom"

module Thistle
  module Web
    # Puts the application together over a data folder: the library, the file, the weather, the session key.
    module Boot
      MAX_BODY = 96 * 1024 * 1024
      SECRET = 64 # characters

      module_function

      # The Rack application; too large a request is turned away before anything reads it.

      def call(folder)
        Core::Knowledge.shipped
        Store::Database.open(File.join(folder, "thistle.db"))
        Store::PlantNames.fill(Core::Knowledge.shipped)
        Store::Property.feed = ->(property) { feed(property) }
        Store::Layer.grid_reader = ->(bytes, crs) { Formats::EsriGrid.read(bytes, crs:) }
        if Store::Database.upgraded?
          Store::Surroundings.settle_all
          Store::FollowUps.settle_all
        end
        Daybreak.at_start
        App.set :session_secret, secret(folder)
        BodyLimit.new(App, MAX_BODY)
      end

      # The weather of a property: its own station's, a simulated one's, or broad values for the region.
      def feed(property)
        climate = JSON.parse(property.climate)
        simulated = ->(**how) { StandIns::WeatherStation.new(seed: property.station_seed, climate:, **how) }
        case property.feed
        when "own" then Store::OwnWeather.new(property, simulated.call(standing: :regional))
        when "broad" then simulated.call(standing: :regional)
        else simulated.call(station: property.station)
        end
      end

      # Kept beside the data, readable by its owner alone, so that a restart does not log anyone out. One that is too
      # short to be a secret is made anew.
      def secret(folder)
        path = File.join(folder, "session.key")
        known = File.exist?(path) ? File.read(path).strip : ""
        return known if known.size >= SECRET

        SecureRandom.hex(SECRET).tap { |made| File.write(path, made, perm: 0o600) }
      end
    end
  end
end
