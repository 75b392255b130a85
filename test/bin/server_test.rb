# frozen_string_literal: true

require "net/http"
require "open3"
require "socket"
require "sqlite3"
require "test_helper"

module Thistle
  # The server as it is started: what it serves, keeps, and refuses, each in one clear sentence.
  class ServerTest < Minitest::Test
    def setup
      @data = Dir.mktmpdir
      @port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
    end

    def teardown = FileUtils.rm_rf(@data)

    def serve(*options, answer: nil)
      out = IO.popen([RbConfig.ruby, "bin/server", "--demo", "--port", @port.to_s, "--data", @data, *options],
                     "r+", chdir: ROOT, err: %i[child out])
      out.puts(answer) if answer
      line = out.gets until line.nil? || line.include?("is at http") || out.eof?
      line = out.gets while line && !line.include?("is at http")
      wait_for_port
      yield
    ensure
      Process.kill("TERM", out.pid)
      out.close
    end

    def wait_for_port
      2400.times do
        return TCPSocket.new("127.0.0.1", @port).close
      rescue Errno::ECONNREFUSED
        sleep 0.25
      end
    end

    def page(path = "/") = Net::HTTP.get_response(URI("http://127.0.0.1:#{@port}#{path}"))
    def store(sql) = SQLite3::Database.new(File.join(@data, "thistle.db")).get_first_value(sql)

    def test_it_serves_the_demo_keeps_what_was_entered_and_bears_a_folder_that_lost_something
      serve { assert_includes page.body, "Today's work" }
      SQLite3::Database.new(File.join(@data, "thistle.db"))
                       .execute("UPDATE patches SET note = 'mine' WHERE code = 'Q-01'")
      before = store("SELECT count(*) FROM patches")
      serve do
        assert_equal "200", page("/survey").code
        taken = Open3.capture2e(RbConfig.ruby, "bin/server", "--port", @port.to_s, "--data", @data, chdir: ROOT)

        assert_match(/\APort #{@port} is in use\. Choose another: .*--port #{@port + 1}\n\z/, taken.first)
        refute_predicate taken.last, :success?
      end

      assert_equal ["mine", before], [store("SELECT note FROM patches WHERE code = 'Q-01'"),
                                      store("SELECT count(*) FROM patches")]
      assert_equal "100600", format("%o", File.stat(File.join(@data, "session.key")).mode)

      # What is missing or broken in the folder is said in words; what can be served is.
      FileUtils.rm_rf(File.join(@data, "layers"))
      File.write(File.join(@data, "session.key"), "")
      Dir[File.join(@data, "thistle.db-*")].each { |path| File.delete(path) }
      serve do
        assert_equal %w[200 200 200], ["/", "/survey", "/survey/layers"].map { |path| page(path).code }
        assert_includes page("/survey/layers").body, "is missing from the data folder"
      end
      File.write(File.join(@data, "thistle.db"), "no database" * 1000)
      out, = Open3.capture2e(RbConfig.ruby, "bin/server", "--port", @port.to_s, "--data", @data, chdir: ROOT)

      assert_match(/thistle.db cannot be used: it is not a file of this program, or it is broken/, out)
    end

    def test_fresh_asks_first
      FileUtils.touch(File.join(@data, "thistle.db"))
      out, status = Open3.capture2e(RbConfig.ruby, "bin/server", "--demo", "--fresh", "--port", @port.to_s, "--data",
                                    @data, stdin_data: "no\n", chdir: ROOT)

      assert_match(/Throw away everything in .*Type yes/, out)
      assert_match(/Nothing was changed/, out)
      refute_predicate status, :success?
      assert_path_exists File.join(@data, "thistle.db")
    end

    # Over again: no record, layer or copy of the old land stays.
    def test_fresh_leaves_nothing_of_the_old_land
      %w[copies layers].each { |folder| FileUtils.mkdir_p(File.join(@data, folder)) }
      %w[thistle.db thistle.db-wal layers/old.elevation copies/daily-2020-01-01.zip
         thistle.db.before-20200101T000000Z].each { |file| FileUtils.touch(File.join(@data, file)) }
      FileUtils.cp(File::NULL, File.join(@data, "session.key"))
      serve("--fresh", answer: "yes") { nil }
      left = Dir[File.join(@data, "**", "*")].map { |path| path.delete_prefix("#{@data}/") }

      assert_empty(left.grep(/old|2020/))
      assert_operator File.size(File.join(@data, "session.key")), :>=, 64
    end

    def test_wrong_options_end_in_a_sentence
      { %w[--port many] => %r{Invalid argument: --port many\. Try: bin/demo},
        %w[--port 99999] => /number from 1 to 65535/,
        %w[--shiny] => /Invalid option: --shiny/ }.each do |options, message|
        out, = Open3.capture2e(RbConfig.ruby, "bin/server", *options, chdir: ROOT)

        assert_match message, out
        assert_equal 1, out.lines.size
      end
    end
  end
end
