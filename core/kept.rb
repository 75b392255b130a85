# frozen_string_literal: true

module Thistle
  module Core
    # Keeps answers by what they were worked out from, up to a number: the one that was not asked for longest goes. Safe
    # between threads.
    class Kept
      def initialize(limit)
        @limit = limit
        @answers = {}
        @lock = Mutex.new
      end

      def clear = @lock.synchronize { @answers.clear }

      # Forgets the answers whose key the block is true of.
      def drop = @lock.synchronize { @answers.delete_if { |key, _| yield key } }

      # The answer kept under a key; nil where there is none.
      def [](key) = @lock.synchronize { used(key)&.first }

      # The answer kept under a key, else the block's, which is kept from now on. The block may run twice at once.
      def fetch(key)
        found = @lock.synchronize { used(key) }
        return found.first if found

        answer = yield
        @lock.synchronize do
          @answers.delete(key)
          @answers.shift while @answers.size >= @limit
          @answers[key] = answer
        end
      end

      # Answers that stay the same all day (a drawn band, a plant's windows), for core and whatever asks it.
      ANSWERS = new(2000)

      # Best moves of patches (Decide::Agenda), and ways for the weeks of a season: as many as differ on large lands.
      MOVES = new(20_000)

      private

      # [the answer], which from now on was asked for last; nil for none.
      def used(key)
        found = @answers.delete(key) { return nil }
        [@answers[key] = found]
      end
    end
  end
end
