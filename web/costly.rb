# frozen_string_literal: true

require "rack/body_proxy"

module Thistle
  module Web
    # Pages that take a while to work out go one at a time in each process, so that whoever asks for a light one beside
    # them waits for one turn at most, and a crowd of them takes no more memory than one. A few wait; more are refused
    # in words.
    class Costly
      PATHS = %r{/(outlook|origin|life|learned|searches|totals|site-map|first|plan)(\z|[./])|
                 \A/(survey/export/|replant/plans/|replant/mix\b|decide/courses/)|
                 \A/pocket/(pack|land)(\z|[.])|
                 \A/records/(workbook|bundle|bundles/\d+(/take)?|lists/[a-z]+/(file|workbook))\z|\.(pdf|svg|geojson)\z}x
      WAITING, PATIENCE = 5, 8.0 # of twelve threads, so that light pages find one; seconds
      CROWDED = "thistle.crowded"
      SAID = "Many pages that take a while are being worked out just now. Try again in a moment."

      def self.path?(path) = path.match?(PATHS)

      def initialize(app, waiting: WAITING, patience: PATIENCE)
        @app, @most, @patience = app, waiting, patience
        @lock, @free = Mutex.new, ConditionVariable.new
        @taken, @waiting = false, 0
      end

      def call(env)
        return @app.call(env) unless Costly.path?(env["PATH_INFO"])

        mine = take
        env[CROWDED] = true unless mine
        answered = @app.call(env)
        return answered unless mine

        status, headers, body = answered
        [status, headers, Rack::BodyProxy.new(body) { give }] # a file may be written while it is sent
      ensure
        give if mine && answered.nil?
      end

      private

      # Is the place ours, at once or after a while?
      def take
        until_when = now + @patience
        @lock.synchronize do
          return false if @taken && @waiting >= @most

          @waiting += 1
          @free.wait(@lock, until_when - now) while @taken && now < until_when
          @waiting -= 1
          !@taken && (@taken = true)
        end
      end

      def give
        @lock.synchronize do
          @taken = false
          @free.signal
        end
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
