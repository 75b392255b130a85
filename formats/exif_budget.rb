# frozen_string_literal: true

module Thistle
  module Formats
    # How much a JPEG's EXIF asks its reader to unfold, counted without unfolding it: entries of its directories, and
    # bytes that they point at, the same ones counted again for each.
    class ExifBudget
      WIDTHS = { 1 => 1, 2 => 1, 3 => 2, 4 => 4, 5 => 8, 6 => 1, 7 => 1, 8 => 2, 9 => 4, 10 => 8, 11 => 4,
                 12 => 8 }.freeze # bytes of a value, by its type
      INNER = [0x8769, 0x8825, 0xA005].freeze # directories within: EXIF, GPS, interoperability
      DIRECTORIES = 16
      HEAD = "Exif\0\0".b

      def initialize(bytes)
        @bytes = bytes
      end

      # Does all of it stay within so many entries and bytes?
      def within?(entries, pointed)
        starts.all? do |start|
          @entries = @pointed = 0
          walk(start)
          @entries <= entries && @pointed <= pointed
        end
      end

      private

      # Where a TIFF header begins.
      def starts
        found, at = [], 0
        while (at = @bytes.index(HEAD, at)) && found.size < DIRECTORIES
          at += HEAD.bytesize
          found << at
        end
        found
      end

      def walk(start)
        short, long = @bytes.byteslice(start, 2) == "MM" ? %w[n N] : %w[v V]
        waiting, seen = [number(start + 4, 4, long)], []
        while (offset = waiting.shift)
          next if offset.zero? || seen.include?(offset) || seen.size >= DIRECTORIES

          seen << offset
          waiting.concat(directory(start, start + offset, short, long))
        end
      end

      # Counts a directory's entries; answers the directories that it names.
      def directory(start, at, short, long)
        count = number(at, 2, short)
        @entries += count
        return [] if @entries > 10_000

        named = (0...count).filter_map do |n|
          tag, type, size = number(at + 2 + (n * 12), 2, short), number(at + 4 + (n * 12), 2, short),
                            number(at + 6 + (n * 12), 4, long)
          @pointed += size * WIDTHS.fetch(type, 1)
          number(at + 10 + (n * 12), 4, long) if INNER.include?(tag)
        end
        [*named, number(at + 2 + (count * 12), 4, long)].reject { |offset| start + offset > @bytes.bytesize }
      end

      def number(at, size, form) = @bytes.byteslice(at, size).to_s.unpack1(form).to_i
    end
  end
end
