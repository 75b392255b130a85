# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # A walk as it comes in: fixes from the phone, a track from a receiver (NMEA or GPX), or a practice walk of the
      # receiver that stands in. All of them go the same way: fixes, track, shape.
      class WalkDesk
        MAX_FILE = 8 * 1024 * 1024
        MAX_FIXES = 4 * Core::Survey::Track::MAX_FIXES

        attr_reader :from, :track

        # params: fixes (JSON), file (an upload), or practice (a patch's id). Raises BadInput (field :walk or :file).
        def initialize(params, property, today)
          @property, @today = property, today
          @track = Core::Survey::Track.new(fixes(params))
        end

        # A practice walk round a patch, as the receiver that stands in would send it.
        def self.practice(patch, today)
          shape = patch.shape.kind == "point" ? patch.ground || patch.shape : patch.shape
          start = Time.utc(today.year, today.month, today.day, 15)
          Formats::NMEA.write(StandIns::GpsReceiver.new(seed: patch.id).walk(shape, start:))
        end

        def shape = track.shape
        def geometry = JSON.generate(shape.geometry)
        def line = JSON.generate(track.line.geometry)

        # What is worth keeping of the walk with the patch that it becomes.
        def note(units)
          return "Walked: #{units.length(track.length)}." unless area

          "Walked: #{units.area(area)} ± #{units.area(error)}, fixes good to #{units.length(track.accuracy)}."
        end

        # The area with its standard error, or nil for a line.
        def area = track.area
        def error = track.area_error

        private

        def fixes(params)
          file = Upload.read(params["file"])
          return practice_fixes(params["practice"]) if params["practice"].to_s != ""
          return from_file(file[:tempfile].read(MAX_FILE + 1)) if file
          return from_phone(params["fixes"]) if params["fixes"].to_s != ""

          raise Core::BadInput.new("Walk, load a track, or replay a practice walk first.", field: :walk)
        end

        def practice_fixes(id)
          @from = "practice"
          patch = @property.live_patches[id: Whole.read(id)]
          raise Core::BadInput.new("There is no such patch here.", field: :walk) unless patch

          Formats::NMEA.fixes(self.class.practice(patch, @today))
        end

        def from_file(bytes)
          @from = "file"
          Formats::Reader.check_size(bytes, MAX_FILE)
          text = Formats::Text.utf8(bytes.byteslice(0, 2000))
          reader = if text.lstrip.start_with?("$") then Formats::NMEA
                   elsif text.match?(/<(\w+:)?gpx[\s>]/) then Formats::GPX
                   end
          return Core::Apart.call { reader.fixes(bytes) } if reader

          raise Core::BadInput.new("That is not a track: an NMEA log begins with $, a GPX file with <gpx>.",
                                   field: :file)
        end

        def from_phone(text)
          @from = "phone"
          rows = JSON.parse(text)
          unless rows.is_a?(Array) && rows.size <= MAX_FIXES
            raise Core::BadInput.new("That is not a list of fixes.", field: :walk)
          end

          rows.filter_map { |row| phone_fix(row) }
        rescue JSON::ParserError
          raise Core::BadInput.new("That is not a list of fixes.", field: :walk)
        end

        def phone_fix(row)
          lon, lat, time, accuracy = row.is_a?(Hash) ? row.values_at("lon", "lat", "time", "accuracy_m") : []
          return unless [lon, lat, time].all?(Numeric)

          Core::Survey::Track::Fix.new(lon: lon.to_f, lat: lat.to_f, time: time.to_f,
                                       accuracy_m: accuracy.is_a?(Numeric) ? accuracy.to_f : nil)
        end
      end
    end
  end
end
