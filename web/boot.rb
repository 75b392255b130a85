# frozen_string_literal: true

require "securerandom"

module Thistle
  module Web
    # Puts the application together over a data folder: the library, the file, the weather, the session key.
    module Boot
      module_function

      def call(folder)
        Core::Knowledge.shipped
        Store::Database.open(File.join(folder, "thistle.db"))
        Store::Property.feed = lambda do |property|
          StandIns::WeatherStation.new(seed: property.station_seed, climate: JSON.parse(property.climate))
        end
        App.set :session_secret, secret(folder)
        App
      end

      # Kept beside the data, readable by its owner alone, so that a restart does not log anyone out.
      def secret(folder)
        path = File.join(folder, "session.key")
        File.write(path, SecureRandom.hex(64), perm: 0o600) unless File.exist?(path)
        File.read(path)
      end
    end
  end
end
