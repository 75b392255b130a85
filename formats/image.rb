# frozen_string_literal: true

require "date"
require "exifr/jpeg"
require "stringio"

module Thistle
  module Formats
    # A photograph: JPEG or PNG by its first bytes, its day and position from EXIF where there are any.
    # `public_bytes` is the same picture without EXIF, position and all, for anyone outside.
    # Raises BadInput (field :photos) for what is too large, not an image, or broken.
    class Image
      MAX = 8 * 1024 * 1024
      TYPES = { "image/jpeg" => "\xFF\xD8\xFF".b, "image/png" => "\x89PNG\r\n\x1A\n".b }.freeze

      TEXT_CHUNKS = %w[tEXt zTXt iTXt eXIf tIME].freeze

      attr_reader :filename, :bytes, :media, :latitude, :longitude, :taken_on

      def initialize(filename, bytes)
        @filename, @bytes = File.basename(filename.to_s.scrub)[0, 120], bytes.b
        refuse "is larger than #{MAX / 1024 / 1024} MB" if @bytes.bytesize > MAX
        @media = TYPES.find { |_, sign| @bytes.start_with?(sign) }&.first or refuse "is not a JPEG or PNG picture"
        media == "image/jpeg" ? read_exif : check_png
      end

      def public_bytes = media == "image/jpeg" ? self.class.without_exif(bytes) : self.class.without_text(bytes)

      # A JPEG without its application segments 1 to 15 (EXIF, XMP, maker's notes) and comments; the picture is
      # untouched.
      def self.without_exif(bytes)
        kept = bytes.byteslice(0, 2)
        each_segment(bytes) do |marker, from, size|
          kept << bytes.byteslice(from, size) unless marker.between?(0xE1, 0xEF) || marker == 0xFE
        end
        kept
      end

      # A PNG without its text, time and EXIF chunks.
      def self.without_text(bytes)
        kept, at = bytes.byteslice(0, 8), 8
        while at + 12 <= bytes.bytesize
          size = bytes.byteslice(at, 4).unpack1("N") + 12
          kept << bytes.byteslice(at, size) unless TEXT_CHUNKS.include?(bytes.byteslice(at + 4, 4))
          at += size
        end
        kept
      end

      # Each segment of a JPEG: marker, first byte, size; the scan and all behind it is the last.
      def self.each_segment(bytes)
        at = 2
        while at + 4 <= bytes.bytesize
          marker = bytes.getbyte(at + 1)
          return yield(marker, at, bytes.bytesize - at) if marker == 0xDA

          size = bytes.byteslice(at + 2, 2).unpack1("n") + 2
          yield marker, at, size
          at += size
        end
      end
      private_class_method :each_segment

      private

      def read_exif
        picture = EXIFR::JPEG.new(StringIO.new(bytes))
        refuse "is a broken JPEG: it has no size" unless picture.width&.positive? && picture.height&.positive?
        @taken_on = picture.date_time_original&.to_date
        place(picture.gps)
      rescue EXIFR::MalformedImage, EOFError, NoMethodError, ArgumentError, RangeError, TypeError
        refuse "is a broken JPEG: its header cannot be read"
      end

      def place(gps)
        return unless gps&.latitude&.between?(-90, 90) && gps.longitude.between?(-180, 180)

        @latitude, @longitude = gps.latitude.round(6), gps.longitude.round(6)
      end

      def check_png
        unless bytes.byteslice(12, 4) == "IHDR" && bytes.byteslice(16, 8).to_s.bytesize == 8
          refuse "is a broken PNG: its header cannot be read"
        end
        refuse "is cut off: its end is missing" unless bytes.byteslice(-12, 12).to_s.include?("IEND")
      end

      def refuse(what) = raise(Core::BadInput.new("“#{filename}” #{what}.", field: :photos))
    end
  end
end
