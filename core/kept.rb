# frozen_string_literal: true

module Thistle
  module Core
    # Keeps the last answers by what they were worked out from, up to a number; safe between threads.
    class Kept
      def initialize(limit)
        @limit = limit
        @answers = {}
        @lock = Mutex.new
      end

      def clear = @lock.synchronize { @answers.clear }

      # The answer kept under a key, else the block's, which is kept from now on. The block may run twice at once.
      def fetch(key)
        @lock.synchronize { return @answers[key] if @answers.key?(key) }
        answer = yield
        @lock.synchronize do
          @answers.shift if @answers.size >= @limit
          @answers[key] = answer
        end
      end

      # Answers that stay the same all day (a drawn band, a plant's windows), for core and whatever asks it.
      ANSWERS = new(500)
    end
  end
end
