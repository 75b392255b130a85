# frozen_string_literal: true

require "socket"

module Thistle
  module Testing
    # A line between a browser and the application that breaks as it is told: :through, :dead (nobody answers), or a
    # block that is asked for each connection and answers :through, :dead or :cut (the request gets through, its answer
    # does not).
    class Line
      attr_reader :port

      def initialize(to)
        @to, @mode, @open, @lock = to, :through, [], Mutex.new
        @server = TCPServer.new("127.0.0.1", 0)
        @port = @server.addr[1]
        @thread = Thread.new { serve }
      end

      # Every connection from now on; those that are open are closed.
      def set(mode = nil, &by_luck)
        @mode = mode || by_luck
        @lock.synchronize { @open.each { |socket| close(socket) }.clear }
      end

      def close_all
        @thread.kill
        set(:dead)
        @server.close
      end

      private

      def serve
        loop do
          socket = @server.accept
          how = @mode.respond_to?(:call) ? @mode.call : @mode
          how == :dead ? close(socket) : Thread.new { pass(socket, how) }
        end
      end

      def pass(socket, how)
        out = TCPSocket.new("127.0.0.1", @to)
        @lock.synchronize { @open.push(socket, out) }
        there = Thread.new { copy(socket, out) }
        how == :cut ? swallow(out, socket) : copy(out, socket)
        there.join(0.1)
      rescue SystemCallError
        nil # nobody is there to answer
      ensure
        [socket, out].compact.each { |one| close(one) }
      end

      # The server did it; nobody hears.
      def swallow(out, socket)
        out.readpartial(65_536)
        close(socket)
      rescue IOError, SystemCallError
        nil
      end

      def copy(from, into)
        loop { into.write(from.readpartial(65_536)) }
      rescue IOError, SystemCallError
        nil
      end

      def close(socket)
        socket.close
      rescue IOError
        nil
      end
    end
  end
end
