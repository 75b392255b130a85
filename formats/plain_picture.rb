# frozen_string_literal: true

module Thistle
  module Formats
    # The picture of a JPEG or PNG and nothing else: only segments and chunks that draw it are kept, nothing behind its
    # end. No position, time, thumbnail, comment or second picture leaves with it.
    module PlainPicture
      # Frames, Huffman and quantisation tables, restart intervals, lines.
      DRAWS = [*0xC0..0xCF, 0xDB, 0xDC, 0xDD].freeze
      SCAN, FINISH, ALONE = 0xDA, 0xD9, [0x01, *0xD0..0xD7].freeze
      CHUNKS = %w[IHDR PLTE IDAT IEND tRNS gAMA cHRM sRGB sBIT bKGD pHYs].freeze
      JFIF = "\xFF\xE0\x00\x10JFIF\x00\x01\x01\x00\x00\x01\x00\x01\x00\x00".b
      ADOBE = "Adobe".b # how its colours are meant

      # What is no picture.
      class Broken < StandardError; end

      module_function

      # The bytes of the picture alone. media: "image/jpeg" or "image/png". Raises Broken.
      def of(bytes, media) = media == "image/jpeg" ? jpeg(bytes) : png(bytes)

      def jpeg(bytes)
        kept, at = "\xFF\xD8".b, 2
        while (marker, at = marker_at(bytes, at))
          break if marker == FINISH
          next if ALONE.include?(marker)

          size = length(bytes, at)
          kept << (segment(marker, bytes.byteslice(at, size)) || "")
          at += size
          at = scan(bytes, at, kept) if marker == SCAN
        end
        kept << "\xFF\xD9".b
      end

      # [marker, the byte behind it] at or behind a place; fill bytes may stand before it. nil at the end.
      def marker_at(bytes, at)
        return if at >= bytes.bytesize
        raise Broken, "no marker" unless bytes.getbyte(at) == 0xFF

        at += 1 while bytes.getbyte(at) == 0xFF
        marker = bytes.getbyte(at)
        marker && [marker, at + 1]
      end

      def length(bytes, at)
        size = bytes.byteslice(at, 2).to_s.unpack1("n").to_i
        raise Broken, "a segment that ends nowhere" if size < 2 || at + size > bytes.bytesize

        size
      end

      # What is kept of a segment, nil for nothing: that it is JFIF is said anew, without thumbnail.
      def segment(marker, body)
        case marker
        when SCAN, *DRAWS then "\xFF".b << marker << body
        when 0xE0 then JFIF if body.byteslice(2, 5) == "JFIF\0".b
        when 0xEE then "\xFF".b << marker << body if body.byteslice(2, 5) == ADOBE && body.bytesize == 14
        end
      end

      # Copies what a scan draws, up to the next marker that is none of its own; answers where that is.
      def scan(bytes, at, kept)
        from = at
        loop do
          at = bytes.index("\xFF".b, at) || bytes.bytesize
          behind = bytes.getbyte(at + 1)
          break if behind.nil? || !(behind.zero? || behind.between?(0xD0, 0xD7))

          at += 2
        end
        kept << bytes.byteslice(from, at - from)
        at
      end

      def png(bytes)
        kept, at = bytes.byteslice(0, 8), 8
        loop do
          raise Broken, "cut off" if at + 12 > bytes.bytesize

          size, name = bytes.byteslice(at, 8).unpack("Na4")
          raise Broken, "a chunk that ends nowhere" if at + size + 12 > bytes.bytesize

          kept << bytes.byteslice(at, size + 12) if CHUNKS.include?(name)
          return kept if name == "IEND"

          at += size + 12
        end
      end
      private_class_method :jpeg, :marker_at, :length, :segment, :scan, :png
    end
  end
end
