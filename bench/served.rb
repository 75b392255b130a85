# frozen_string_literal: true

require "net/http"
require "socket"
require "tmpdir"

module Thistle
  # A server of the demo in a folder of its own, and what its processes weigh.
  module Served
    private

    def serve(&) = Dir.mktmpdir("thistle") { |folder| serve_from(folder, &) }

    def serve_from(folder)
      @port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
      @server = Process.spawn(RbConfig.ruby, "bin/server", "--demo", "--port", @port.to_s, "--data", folder,
                              chdir: ROOT, out: File::NULL)
      900.times { answers? ? break : sleep(0.2) }
      yield
    ensure
      Process.kill("TERM", @server)
      Process.wait(@server)
    end

    def answers?
      Net::HTTP.get_response(URI("http://127.0.0.1:#{@port}/records")).code == "200"
    rescue SystemCallError
      false
    end

    # MB of the largest of the server and its workers, without what runs apart for a moment.
    def largest
      children = File.read("/proc/#{@server}/task/#{@server}/children").split
      [@server, *children].map { |pid| megabytes(pid) }.max
    end

    def megabytes(pid)
      File.read("/proc/#{pid}/smaps_rollup")[/^Rss:\s+(\d+)/, 1].to_i / 1024.0
    rescue SystemCallError
      0
    end

    def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

    def say(what, figure, unit, asked)
      puts format("  %-44s %8.2f %s (asked: under %s)%s", what, figure, unit, asked, figure < asked ? "" : "  OVER")
    end
  end
end
