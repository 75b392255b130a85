# frozen_string_literal: true

require "fiddle"

module Thistle
  module Store
    # Process: the disk that the data lies on: its room, and its faults in words.
    module Disk
      CALL = Fiddle::Function.new(Fiddle::Handle::DEFAULT["statvfs"], [Fiddle::TYPE_VOIDP, Fiddle::TYPE_VOIDP],
                                  Fiddle::TYPE_INT)
      BYTES, WORDS, BLOCK, AVAILABLE, FLAGS = 256, "L!11", 1, 4, 9 # of struct statvfs in 64-bit glibc
      READ_ONLY = 1
      LITTLE = 300 * 1024 * 1024 # bytes: less is said before it is none

      # What the system says of the disk, besides what SQLite does.
      FAULTS = [Errno::ENOSPC, Errno::EDQUOT, Errno::EFBIG, Errno::EROFS, Errno::EACCES].freeze

      module_function

      # Bytes that may be written in a folder: 0 where nothing may, infinity where it cannot be told.
      def room(folder)
        told = Fiddle::Pointer.malloc(BYTES, Fiddle::RUBY_FREE)
        return Float::INFINITY unless CALL.call(folder, told).zero?

        numbers = told[0, BYTES].unpack(WORDS)
        numbers[FLAGS].nobits?(READ_ONLY) ? numbers[BLOCK] * numbers[AVAILABLE] : 0
      end

      # That the disk fills up, in a sentence; nil while there is room.
      def said(folder = File.dirname(Database.path))
        left = room(folder)
        return if left > LITTLE

        "The disk of the data has #{left / 1024 / 1024} MB left. Make room before it is full."
      end
    end
  end
end
