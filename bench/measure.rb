# frozen_string_literal: true

module Thistle
  # What every bench measures with.
  module Measure
    # Seconds that the block took.
    def clock
      start = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      yield
      Process.clock_gettime(Process::CLOCK_MONOTONIC) - start
    end

    # The questions that the block asks the file, as SQL.
    def log
      lines = []
      logger = Logger.new(StringIO.new)
      logger.formatter = ->(_, _, _, message) { lines << message[/\) (SELECT .*)/m, 1] }
      @db.loggers << logger
      yield
      lines.compact
    ensure
      @db.loggers.clear
    end
  end
end
