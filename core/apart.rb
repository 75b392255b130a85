# frozen_string_literal: true

require "etc"
require "io/wait"

module Thistle
  module Core
    # Runs what reads a strange file, or lays out a strange shape, in a process of its own, with limits on time and
    # memory: whatever it does there, it is answered in words, and nothing else waits or grows.
    #
    #   features = Apart.call { Reader.read(bytes) }
    module Apart
      FULL = "Many files are being read just now. Try again in a moment."
      SECONDS, MEGABYTES = 10, 500
      ANSWER = 96 * 1024 * 1024 # bytes of what was read
      PLACES = Places.new("thistle-file", 2, full: FULL) # files at once, whichever process asks
      NICE = 10 # pages go before
      # Seconds: of reading, that one more waits, of both together. Whoever tests what is read, and not how fast, gives
      # more.
      LIMITS = { seconds: SECONDS, patience: 5, altogether: 11.5 }.freeze
      TOO_MUCH = "The file asks for more than #{SECONDS} seconds or #{MEGABYTES} MB to be read: it was left alone. " \
                 "Split it, or save it plainer.".freeze

      BROKEN = "The file is broken in a way that nobody here knows: nothing was taken from it."

      class << self
        attr_writer :limits

        def limits = @limits || LIMITS
      end

      module_function

      # What the block answers, which can be marshalled. Raises BadInput as the block does, and (field) when it takes
      # too long, too much memory, or breaks the process (`cut_off` says so); Busy where too many others are read, or
      # the machine had no time for it.
      def call(field: :file, limits: Apart.limits, seconds: limits[:seconds], megabytes: MEGABYTES, places: PLACES,
               cut_off: TOO_MUCH, &block)
        places.hold(seconds: limits[:patience], field:) do |waited|
          left = [seconds, limits[:altogether] - waited].min
          said, starved = apart(left, megabytes, &block)
          kind, answer, at = answered(said)
          next answer if kind == :read
          raise Core::Busy.new(places.full, field:) if answer.nil? && (starved || left < seconds)

          raise Core::BadInput.new(answer || cut_off, field: at || field)
        end
      end

      # [what came through the pipe, had the process no time?]
      def apart(seconds, megabytes, &block)
        from, into = IO.pipe(binmode: true)
        process = fork { inside(into, seconds, megabytes, &block) }
        into.close
        said = read(from, seconds)
        [said, said.nil? && spent(process) < seconds / 4.0]
      ensure
        from&.close
        finish(process) if process
      end

      def inside(into, seconds, megabytes, &)
        Process.setpriority(Process::PRIO_PROCESS, 0, NICE)
        Process.setrlimit(:CPU, seconds.ceil)
        Process.setrlimit(:DATA, taken + (megabytes * 1024 * 1024))
        into.write(Marshal.dump(outcome(&)))
        into.close
      ensure
        exit!
      end

      def outcome
        [:read, yield]
      rescue Core::BadInput => e
        [:refused, e.message, e.field]
      rescue NoMemoryError
        [:broken, TOO_MUCH, nil]
      rescue StandardError => e
        warn "a file was given up: #{e.class}: #{e.message[0, 200]}", *e.backtrace.first(3)
        [:broken, BROKEN, nil]
      end

      # Bytes of the process's own data as it begins.
      def taken = File.read("/proc/self/status")[/^VmData:\s+(\d+)/, 1].to_i * 1024

      # What comes through the pipe until it is closed; nil when that takes too long.
      def read(from, seconds)
        until_when = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
        said = +"".b
        loop do
          left = until_when - Process.clock_gettime(Process::CLOCK_MONOTONIC)
          return "" if said.bytesize >= ANSWER
          return unless left.positive? && from.wait_readable(left)

          said << from.readpartial(1 << 20)
        end
      rescue EOFError
        said
      end

      # Seconds of a core that a process had.
      def spent(process)
        ticks = File.read("/proc/#{process}/stat").rpartition(")").last.split.values_at(11, 12).sum(&:to_i)
        ticks / Float(Etc.sysconf(Etc::SC_CLK_TCK))
      rescue SystemCallError
        0.0
      end

      # Of our own process, or nothing that it finished.
      def answered(said)
        Marshal.load(said) # rubocop:disable Security/MarshalLoad -- written by a fork of this process
      rescue TypeError, ArgumentError
        [:broken, nil, nil]
      end

      # Ends a process that was forked here, whether it is done or not.
      def finish(process)
        Process.kill(:KILL, process)
        Process.wait(process)
      rescue Errno::ESRCH, Errno::ECHILD
        nil
      end
      private_class_method :apart, :inside, :outcome, :taken, :read, :answered, :spent
    end
  end
end
