# frozen_string_literal: true

# `rake bench hands`: a crowd on one server, pages from 100 to 100 000 patches, a copy while others write. Each figure
# stands beside what is asked. PATCHES, SECONDS and PEOPLE say otherwise how many.
require "json"
require "net/http"
require "open3"
require "socket"
require "sqlite3"
require "tmpdir"
require_relative "../thistle"
require_relative "growth"
require_relative "served"

module Thistle
  # People at a server of its own, over HTTP.
  class Hands
    include Served

    PEOPLE = Integer(ENV.fetch("PEOPLE", "50"))
    SECONDS = Integer(ENV.fetch("SECONDS", "30"))
    PAUSE = 10.0 # seconds between what one person records
    TYPED = { seen_on: "2026-05-12", plant_key: "garlic_mustard", radius: "3" }.freeze
    PLACE = [-91.4021, 38.0012].freeze

    # One person: a session, a token, what was answered and how long it took.
    class Person
      attr_reader :waits, :answers

      def initialize(port, number)
        @http = Net::HTTP.start("127.0.0.1", port, read_timeout: 60)
        @number, @waits, @answers = number, [], Hash.new(0)
        page = @http.get("/records")
        @cookie = page["set-cookie"][/thistle=[^;]+/]
        @token = page.body[/name="authenticity_token" value="([^"]+)"/, 1]
      end

      def send_form(path, **fields)
        kept { @http.post(path, URI.encode_www_form(authenticity_token: @token, **fields), "Cookie" => @cookie) }
      end

      def get(path) = kept { @http.get(path, "Cookie" => @cookie) }

      # A patch, then the page that follows.
      def record(note)
        place = PLACE.map { |degrees| degrees + ((rand - 0.5) / 100) }
        answer = send_form("/survey/patches", geometry: JSON.generate(type: "Point", coordinates: place), note:,
                           **TYPED)
        get(URI(answer["location"]).path) if answer["location"]
        answer
      end

      private

      def kept
        start = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        answer = yield
        @waits << (Process.clock_gettime(Process::CLOCK_MONOTONIC) - start)
        @answers[answer.code] += 1
        @cookie = answer["set-cookie"][/thistle=[^;]+/] || @cookie if answer["set-cookie"]
        answer
      rescue SystemCallError, Timeout::Error, EOFError => e
        @answers[e.class.name] += 1
        raise
      end
    end

    def run
      Dir.mktmpdir("thistle") do |folder|
        @folder = folder
        serve_from(@folder) do
          crowd
          moment
          one_patch
          copy
        end
      end
    end

    private

    def together(people = PEOPLE, &)
      all = Array.new(people) { |n| Person.new(@port, n) }
      start = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      all.each_with_index.map { |person, n| Thread.new { yield person, n } }.each(&:join)
      [all, Process.clock_gettime(Process::CLOCK_MONOTONIC) - start]
    end

    def crowd
      before = count
      all, = together do |person, n|
        sleep PAUSE * n / PEOPLE
        (SECONDS / PAUSE).ceil.times do |turn|
          person.record("crowd #{n} #{turn}")
          sleep PAUSE
        end
      end
      waits = all.flat_map(&:waits).sort
      puts "#{PEOPLE} people, each a record every #{PAUSE.round} s and the page that follows, #{SECONDS} s:"
      say "median wait", 1000 * waits[waits.size / 2], "ms", 150
      say "longest wait", waits.last, "s", 3
      tell(all, before)
    end

    def moment
      before = count
      all, took = together { |person, n| person.record("moment #{n}") }
      puts "#{PEOPLE} at the very same moment:"
      say "all done after", took, "s", 10
      tell(all, before)
    end

    # Answers by code, and whether what was acknowledged is there once.
    def tell(all, before)
      answers = all.map(&:answers).reduce { |sum, one| sum.merge(one) { |_, a, b| a + b } }
      puts "  answers #{answers}; #{answers.fetch("303", 0)} acknowledged, #{count - before} on the map, " \
           "#{doubled} doubled (asked: as many, none)"
    end

    def one_patch
      patch = JSON.parse(Net::HTTP.get(URI("http://127.0.0.1:#{@port}/survey/patches/1.json")))
      typed = { _method: "put", geometry: JSON.generate(patch["geometry"]), seen_on: patch["seen_on"],
                lock_version: patch["lock_version"] }
      all, = together { |person, n| person.send_form("/survey/patches/1", **typed, note: "person #{n}") }
      answers = all.map { |person| person.answers.keys.first }.tally
      puts "#{PEOPLE} changing one patch: #{answers} (asked: one 303, the others 409 with both versions)"
    end

    # A copy while four people write; put back, it holds what it says.
    def copy
      path = File.join(@folder, "copy.zip")
      writers = Thread.new { together(4) { |person, n| 40.times { |turn| person.record("copy #{n} #{turn}") } } }
      sleep 0.5
      said = [thistle("backup", path), writers.join && count, thistle("restore", path)]
      puts "a copy while four people write: #{said.first}", "  put back: #{said.last}",
           "  #{said[1]} patches before, #{count} after, #{answers? ? "the server answers" : "THE SERVER IS SILENT"}"
    end

    def thistle(act, path)
      said, status = Open3.capture2e(RbConfig.ruby, "bin/thistle", act, "--data", @folder, path, chdir: ROOT)
      abort said unless status.success?
      said.strip
    end

    def count = ask("SELECT COUNT(*) FROM patches")

    def doubled
      ask("SELECT COUNT(*) FROM (SELECT note FROM patches WHERE note LIKE 'crowd%' OR note LIKE 'moment%' GROUP BY " \
          "note HAVING COUNT(*) > 1)")
    end

    def ask(sql)
      db = SQLite3::Database.new(File.join(@folder, "thistle.db"), readonly: true)
      db.get_first_value(sql)
    ensure
      db&.close
    end

    def say(what, figure, unit, asked) = puts format("  %-16s %8.2f %s (asked: under %s)", what, figure, unit, asked)
  end
end

Thistle::Hands.new.run
Thistle::Growth.new.run
