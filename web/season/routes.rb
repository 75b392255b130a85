# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # What do the year and the weather allow?
      module Routes
        def self.registered(app)
          app.helpers Helpers
          year(app)
          seen(app)
          fit(app)
          weather(app)
          pit(app)
          files(app)
          calendar(app)
        end

        def self.year(app)
          app.get "/season" do
            board = YearBoard.new(property, site, today, all: params["all"])
            show("season/index", board:, form: Form::Blank.new) { Answers.year(board, band) }
          end
        end

        def self.seen(app)
          app.post "/season/sightings" do
            form = Forms::Sighting.new(params, units:, today:)
            if (sighting = form.store(property, site))
              offer_undo "/season/sightings/#{sighting.id}/undo"
              next go_to(params["back"].to_s[%r{\A/identify/[\w/-]+\z}] || "/season",
                         season_words.said_sighting(sighting))
            end

            show "season/index", status: 422, board: YearBoard.new(property, site, today), form:
          end

          app.delete "/season/sightings/:id" do
            sighting = of_property(Store::Sighting, params["id"])
            sighting.take_back
            offer_undo "/season/sightings/#{sighting.id}/undo"
            go_to "/season", "Taken back. The year is worked out without it."
          end

          app.post "/season/sightings/:id/undo" do
            sighting = of_property(Store::Sighting, params["id"])
            sighting.deleted_at ? sighting.bring_back : sighting.take_back
            go_to "/season", "Undone."
          end
        end

        def self.fit(app)
          app.get "/season/fit" do
            key = knowledge.fits.key?(params["work"].to_s.to_sym) ? params["work"].to_sym : :pulling
            show("season/fit", key:, in_use: Store::InUse.products(property.id)[key.to_s]) do
              Answers.fits(site, property)
            end
          end
        end

        def self.weather(app)
          app.get "/season/weather" do
            show("season/weather", form: Forms::Station.of(property, units, today), upload: Form::Blank.new) do
              Answers.weather(site, property)
            end
          end

          app.post "/season/weather" do
            form = Forms::Station.new(params, units:, today:)
            if form.store(property)
              next go_to("/season/weather", "The year is worked out from #{Store::Property::FEEDS[property.feed]}.")
            end

            show "season/weather", status: 422, form:, upload: Form::Blank.new
          end
        end

        # Soil by feel: the answers stand in the address until they are kept.
        def self.pit(app)
          app.get "/season/pit" do
            pit = Core::Season::SoilPit.new(params)
            show("season/pit", pit:) { Answers.pit(pit) }
          end

          app.post "/season/pit" do
            pit = Core::Season::SoilPit.new(params)
            unless pit.texture && !pit.poorly_drained.nil?
              next show("season/pit", status: 422, pit:) { Answers.pit(pit) }
            end

            property.update(texture: pit.texture, poorly_drained: pit.poorly_drained)
            property.year_changed
            go_to "/season/weather", "Kept: #{knowledge.soils[pit.texture]["label"]}, " \
                                     "#{pit.poorly_drained ? "badly drained" : "drained"}."
          end
        end

        def self.files(app)
          app.post "/season/weather/files" do
            file = Upload.read(params["file"])
            raise Core::BadInput.new("Choose a file first.", field: :file) unless file
            raise Core::BadInput.new("24 MB is the most.", field: :file) if file[:tempfile].size > WeatherDesk::MOST

            record = WeatherDesk.draft(property, File.basename(file[:filename].to_s.scrub)[0, 120],
                                       file[:tempfile].read)
            go_to "/season/weather/files/#{record.id}"
          rescue Core::BadInput => e
            show "season/weather", status: 422, form: Forms::Station.of(property, units, today),
                                   upload: Form::Blank.new.failed(:file, e.message)
          end

          app.get "/season/weather/files/:id" do
            record = of_property(Store::WeatherFile, params["id"])
            show("season/file", record:, desk: record.taken? ? nil : WeatherDesk.new(record)) do
              Answers.weather_file(record)
            end
          end

          app.post "/season/weather/files/:id" do
            record = of_property(Store::WeatherFile, params["id"])
            halt 409 if record.taken?
            desk = WeatherDesk.new(record)
            desk.map(params)
            next go_to("/season/weather/files/#{record.id}") if params["look"] || desk.fault

            desk.take
            go_to "/season/weather/files/#{record.id}", "Taken: the year is worked out from your own station now."
          end

          app.delete "/season/weather/files/:id" do
            record = of_property(Store::WeatherFile, params["id"])
            record.take_back
            go_to "/season/weather", "#{record.filename} is out again."
          end
        end

        def self.calendar(app)
          app.get "/season/calendar" do
            calendar = Calendar.new(property, today)
            show("season/calendar", calendar:) { Answers.calendar(calendar) }
          end

          # The address with a key is for programs that subscribe: it needs no session, and says nothing to who has no
          # key.
          app.get "/calendars/:key.ics" do
            key = params["key"]
            owner = Store::Property.first(calendar_token: key) || guests_calendar(key) if key.size >= 16
            halt 404 unless owner
            content_type "text/calendar", charset: "utf-8"
            Calendar.new(owner, today).to_ics
          end

          app.get "/season/calendar.ics" do
            content_type "text/calendar", charset: "utf-8"
            attachment "#{property.prefix.downcase}-calendar.ics"
            Calendar.new(property, today).to_ics
          end

          app.post "/season/calendar/key" do
            had = property.calendar_token
            property.renew_calendar_key
            go_to "/season/calendar", had ? "The old address no longer works. Use this one." : "This is its address."
          end
        end

        # What this room says, for every page.
        module Helpers
          def season_words = Words.new(property)
          def fit_words = FitWords.new(units)
        end
      end
    end
  end
end
