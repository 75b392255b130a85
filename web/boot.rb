# frozen_string_literal: true

require "rack/deflater"
require "securerandom"

module Thistle
  module Web
    # Puts the application together over a data folder: the library, the file, the weather, the session key.
    module Boot
      MAX_BODY = 96 * 1024 * 1024
      SECRET = 64 # characters
      LOCAL = %w[localhost 127.0.0.1 [::1]].freeze
      # What is worth packing on its way; pictures and archives are packed already.
      PACKED = %w[text/html text/css text/plain text/csv text/calendar text/javascript application/javascript
                  application/json application/geo+json application/gpx+xml application/vnd.google-earth.kml+xml
                  image/svg+xml].freeze

      module_function

      # The Rack application; too large a request is turned away before anything reads it. It answers as this machine
      # and as the hosts that are named, and as no other; as those of `over_tls` to a proxy that ends TLS alone.
      def call(folder, hosts: [], over_tls: [])
        File.umask(0o077) # what is written from now on is its owner's alone
        read_library(folder)
        Store::Database.open(File.join(folder, "thistle.db"))
        File.chmod(0o600, Store::Database.path)
        Store::Restore.new(folder).sweep
        Store::PlantNames.fill(Core::Knowledge.shipped)
        Store::Property.feed = ->(property) { feed(property) }
        Store::Whereabouts.borders = -> { borders }
        Store::Layer.grid_reader = ->(bytes, crs) { Formats::EsriGrid.read(bytes, crs:) }
        if Store::Database.upgraded?
          Store::PatchShape.settle_all
          Store::Surroundings.settle_all
          Store::FollowUps.settle_all
          clean_photographs
        end
        Store::Whereabouts.settle_all
        Daybreak.at_start
        App.set :session_secret, secret(folder)
        at_the_door(folder, over_tls)
        App.set :host_authorization, permitted_hosts: [*LOCAL, *hosts, *over_tls]
        App.set :over_tls, over_tls
        pages = Rack::Deflater.new(Statics.new(Costly.new(App)), include: PACKED, sync: false)
        LastWords.new(BodyLimit.new(pages, MAX_BODY))
      end

      # Out of what was put aside, where there is room to put anything aside.
      def read_library(folder)
        FileUtils.mkdir_p(folder)
        return Core::Knowledge.shipped if Store::Disk.room(folder) < Store::Disk::LITTLE

        Core::Knowledge.take_from(folder)
      end

      # What the door needs: its key, its address in letters, by which server these go.
      def at_the_door(folder, over_tls)
        Accounts::Door.secret = secret(folder)
        Accounts::Door.address = over_tls.any? ? "https://#{over_tls.first}" : "http://localhost:4567"
        Accounts::MailServer.folder = folder
        Accounts::MailServer.at_hand.move_out
      end

      # The picture alone; nothing where it cannot be told from the rest.
      def clean_photographs
        Store::Photo.clean do |bytes, media|
          Formats::PlainPicture.of(bytes, media)
        rescue Formats::PlainPicture::Broken
          nil
        end
      end

      # Boundaries of countries and of the United States' states (Natural Earth and the census, from npm).
      def borders
        read = ->(file, object) { Formats::TopoJson.read(File.read(File.join(ROOT, "node_modules", file)), object) }
        Core::Survey::Borders.new(countries: -> { read["world-atlas/countries-50m.json", "countries"] },
                                  states: -> { read["us-atlas/states-10m.json", "states"] })
      end

      # The weather of a property: its own station's, a simulated one's, or usual values of the places around.
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
