# frozen_string_literal: true

require "tmpdir"

module Thistle
  module Core
    # So many places, whichever process or thread asks: whoever finds none waits a while. A place is a file that is
    # locked, so that one whose holder was killed is free again.
    class Places
      LOOK = 0.05 # seconds between looks

      attr_reader :full

      # full: the words for whoever found none.
      def initialize(name, count, full:)
        @name, @count, @full = name, count, full
      end

      # What the block answers, once a place is free: it is given the seconds that were waited. Raises Busy (field)
      # after so many without one.
      def hold(seconds:, field:)
        began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        place = wait(seconds)
        raise Core::Busy.new(full, field:) unless place

        yield Process.clock_gettime(Process::CLOCK_MONOTONIC) - began
      ensure
        place&.flock(File::LOCK_UN) # said, since a fork may still hold the same file
        place&.close
      end

      private

      def wait(seconds)
        until_when = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
        loop do
          free = (0...@count).lazy.filter_map { |n| take(n) }.first
          return free if free || Process.clock_gettime(Process::CLOCK_MONOTONIC) > until_when

          sleep LOOK
        end
      end

      def take(number)
        file = File.new(File.join(Dir.tmpdir, "#{@name}-#{number}.place"), File::RDWR | File::CREAT, 0o600)
        return file if file.flock(File::LOCK_EX | File::LOCK_NB)

        file.close
        nil
      end
    end
  end
end
