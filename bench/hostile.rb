# frozen_string_literal: true

# `rake bench hostile`: spoilt and made files over every reader of a running server, four at a time, while pages are
# asked for beside them. Each figure stands beside what is asked. FILES says otherwise how many.
require "tmpdir"
require_relative "../thistle"
require_relative "served"
require_relative "../test/support/spoiler"
require_relative "hostile_files"

module Thistle
  # A server of its own, and what is sent there.
  class Hostile
    include Served

    FILES = Integer(ENV.fetch("FILES", "10000"))
    SENDERS = 4
    PAGES = %w[/find /records /recheck /season /decide/methods /img/glyphs.svg].freeze
    WORST, GROWN, MEANWHILE = 12, 600, 200 # seconds of an answer, MB of the server, ms of a page beside it
    MADE = 0.1 # of the files are made to harm, the rest are good ones spoilt

    def initialize
      @answers, @slowest, @pages, @grown = Hash.new(0), Hash.new(0.0), [], 0
      @lock = Mutex.new
    end

    def run
      serve do
        @done, @files = false, HostileFiles.new(Client.new(@port))
        [@files.good, @files.made] # once, before several ask
        beside = [Thread.new { browse }, Thread.new { weigh }]
        send_all
        @done = true
        beside.each(&:join)
      end
      tell
    end

    private

    def send_all
      queue = Queue.new
      FILES.times { |n| queue << n }
      queue.close
      Array.new(SENDERS) do |n|
        Thread.new do
          client = Client.new(@port)
          random = Random.new(n)
          while queue.pop
            kind, path, field, name, bytes = file(random)
            began = now
            code = client.post(path, field, name, bytes)
            @lock.synchronize { note(kind, code, now - began, bytes) }
          end
        end
      end.each(&:join)
    end

    def note(kind, code, seconds, bytes)
      @answers[code] += 1
      @slowest[kind] = [@slowest[kind], seconds].max
      return if code < 500 && seconds < WORST

      kept = File.join(Dir.tmpdir, "hostile-#{kind}-#{@answers.values.sum}")
      File.binwrite(kept, bytes)
      warn "#{code} after #{seconds.round(1)} s: #{kind}, kept as #{kept}"
    end

    # [kind, path, field, name, bytes]
    def file(random)
      kind, (path, field, bytes) = (random.rand < MADE ? @files.made : @files.good).to_a.sample(random:)
      bytes = Spoiler.spoilt(bytes, random) unless @files.made.key?(kind)
      [kind, path, field, "#{kind}.bin", bytes]
    end

    def browse
      client = Client.new(@port)
      PAGES.cycle do |path|
        break if @done

        began = now
        client.get(path)
        @pages << [now - began, path]
        sleep 0.1
      end
    end

    def weigh
      until @done
        @grown = [@grown, largest].max
        sleep 0.5
      end
    end

    def tell
      waits = @pages.map(&:first).sort
      bad = @answers.sum { |code, number| code >= 500 ? number : 0 }
      puts "#{@answers.values.sum} files, #{SENDERS} at a time: answers #{@answers.sort.to_h}"
      say "faults of ours", bad, "", 1
      say "longest answer (#{@slowest.max_by(&:last).first})", @slowest.values.max, "s", WORST
      say "largest process of the server", @grown, "MB", GROWN
      say "pages beside, median of #{waits.size}", 1000 * waits[waits.size / 2], "ms", MEANWHILE
      say "pages beside, 95 of 100 within", 1000 * waits[(waits.size * 0.95).floor], "ms", MEANWHILE
      say "pages beside, longest (#{@pages.max.last})", 1000 * waits.last, "ms", MEANWHILE
    end
  end
end

Thistle::Hostile.new.run
puts "every address and form with numbers at their ends:"
system({ "WALK" => "ends" }, RbConfig.ruby, "#{__dir__}/walk.rb", exception: true)
