# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # Photographs that know where they were taken become reported points; each is kept with a sheet for a specialist.
      class PhotoPoints
        MAX = 24
        RADIUS_M = 5.0 # what a phone's position in a picture is good for (memory)

        def initialize(files, property, today)
          @property, @today = property, today
          files = Upload.all(files)
          unless files.size.between?(1, MAX)
            raise Core::BadInput.new("Choose photographs first, #{MAX} at most.", field: :photos)
          end

          @placed, @lost = Formats::Image.all(files).partition(&:latitude)
          return unless @placed.empty?

          raise Core::BadInput.new("None of the photographs has a location: location was off in the camera. " \
                                   "Draw the point instead.",
                                   field: :photos)
        end

        def store
          Store::Patch.db.transaction { @patches = @placed.map { |image| point(image) } }
        end

        def said
          codes = @patches.map(&:code).join(", ")
          left = if @lost.empty?
                   ""
                 else
                   " #{@lost.map(&:filename).join(", ")} had no position and #{@lost.one? ? "was" : "were"} left."
                 end
          "#{codes} from #{@placed.one? ? "a photograph" : "#{@placed.size} photographs"}: name them next.#{left}"
        end

        private

        def point(image)
          seen_on = [image.taken_on || @today, @today].min
          patch = Store::Patch.new(property_id: @property.id, code: @property.next_code, seen_on:, radius_m: RADIUS_M,
                                   note: "From #{image.filename}.")
          patch.shape = Core::Survey::Shape.new("type" => "Point", "coordinates" => [image.longitude, image.latitude])
          patch.save
          key = Core::Identify::Key.new({}, site: @property.site(@today), date: seen_on, region: @property.region)
          report = Store::Report.write(@property, key, patch: nil)
          report.update(patch_id: patch.id)
          report.attach(image)
          patch
        end
      end
    end
  end
end
