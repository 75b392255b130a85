# frozen_string_literal: true

require "date"
require "exifr/jpeg"
require "stringio"

module Thistle
  module Formats
    # A photograph: JPEG or PNG by its first bytes, its day, position and direction (degrees from north) from EXIF where
    # there are any.
    # `public_bytes` is the picture alone, for anyone outside.
    # Raises BadInput (field :photos) for what is too large, not an image, or broken.
    class Image
      MAX = 8 * 1024 * 1024
      TYPES = { "image/jpeg" => "\xFF\xD8\xFF".b, "image/png" => "\x89PNG\r\n\x1A\n".b }.freeze

      MAX_PIXELS = 60_000_000
      ENTRIES = 1000 # of EXIF, and bytes that all of them point at: they may point at the same ones
      POINTED = 512 * 1024
      # [Image] of uploads ({ filename:, tempfile: }), read in a process of its own. Raises BadInput (field :photos).
      def self.all(files)
        Core::Apart.call(field: :photos) do
          files.map do |file|
            new(file[:filename], file[:tempfile].read(MAX + 1).to_s)
          end
        end
      end

      attr_reader :filename, :bytes, :media, :latitude, :longitude, :taken_on, :direction

      def initialize(filename, bytes)
        @filename, @bytes = File.basename(filename.to_s.scrub)[0, 120], bytes.b
        refuse "is larger than #{MAX / 1024 / 1024} MB" if @bytes.bytesize > MAX
        @media = TYPES.find { |_, sign| @bytes.start_with?(sign) }&.first or refuse "is not a JPEG or PNG picture"
        media == "image/jpeg" ? read_exif : check_png
      end

      # The picture and nothing else, for anyone outside. Raises BadInput for one that cannot be told from the rest.
      def public_bytes
        PlainPicture.of(bytes, media)
      rescue PlainPicture::Broken
        refuse "is a broken #{media == "image/png" ? "PNG" : "JPEG"}: its picture cannot be told from the rest"
      end

      private

      def read_exif
        within = ExifBudget.new(bytes).within?(ENTRIES, POINTED)
        refuse "holds more than #{ENTRIES} notes beside the picture" unless within
        public_bytes
        picture = EXIFR::JPEG.new(StringIO.new(bytes))
        refuse "is a broken JPEG: it has no size" unless picture.width&.positive? && picture.height&.positive?
        check_size(picture.width, picture.height)
        @taken_on = picture.date_time_original&.to_date
        place(picture.gps)
      rescue EXIFR::MalformedImage, EOFError, NoMethodError, ArgumentError, RangeError, TypeError
        refuse "is a broken JPEG: its header cannot be read"
      end

      def place(gps)
        return unless gps&.latitude&.between?(-90, 90) && gps.longitude.between?(-180, 180)

        @latitude, @longitude = gps.latitude.round(6), gps.longitude.round(6)
        @direction = gps.image_direction&.to_f&.then { |degrees| degrees.round(1) if degrees.between?(0, 360) }
      end

      def check_png
        unless bytes.byteslice(12, 4) == "IHDR" && bytes.byteslice(16, 8).to_s.bytesize == 8
          refuse "is a broken PNG: its header cannot be read"
        end
        public_bytes
        check_size(*bytes.byteslice(16, 8).unpack("NN"))
      end

      def check_size(width, height)
        refuse "has more than #{MAX_PIXELS / 1_000_000} million pixels" if width * height > MAX_PIXELS
      end

      def refuse(what) = raise(Core::BadInput.new("“#{filename}” #{what}.", field: :photos))
    end
  end
end
