# frozen_string_literal: true

# Runs every test file in processes of their own, one more at a time than there are cores, since the browser's wait for
# Chromium now and then; the longest first. Each is a fork of this one, which has read the library. Prints what each
# process printed when it ends, how to run alone what failed, and a line for all of them.
#   --only NAME   files with that in their path
#   --changed     files of the rooms that git sees changed, and the house's
require "etc"
require "tmpdir"
require_relative "../thistle"

Batch = Struct.new(:name, :files, :only) do
  # [what it printed, did it pass?, seconds]
  def run
    began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    out, into = IO.pipe
    process = fork { inside(into) }
    into.close
    said = out.read
    passed = Process.wait2(process).last.success?
    [said, passed, (Process.clock_gettime(Process::CLOCK_MONOTONIC) - began).round]
  end

  # Minitest runs what is loaded when the process ends.
  def inside(into)
    [$stdout, $stderr].each { |stream| stream.reopen(into) }
    $stdout.sync = true
    ARGV.replace(only ? ["--name", only] : [])
    files.each { |file| require "./#{file}" }
  end

  # The commands that run alone what the output says went wrong.
  def alone(out)
    out.scan(/^ *\d+\) (?:Failure|Error):\n\S+#(test_\w+)/).flatten.map do |test|
      file = files.find { |one| File.read(one).match?(/\b#{test}\b/) } || files.first
      "bundle exec ruby -Itest #{file} --name #{test}"
    end
  end
end

COUNTED = %w[runs assertions failures errors skips].freeze
VIEWS = "test/browser/views_test.rb" # at each size by itself
SIZES = { "at a desk" => "/desk/", "on a phone" => "/views_phone/", "the rest" => "/field|keys|crossed/" }.freeze
WALK = "test/web/walk_test.rb" # as long as half of the rest of its folder
LONG = [WALK, "test/web", "test/store", "test/bin", "test/core/identify", "test/formats", "test/core/decide",
        "test/browser/walk_test.rb", "test/browser/survey_test.rb", "test/browser/survey_files_test.rb",
        "test/core"].freeze

ROOMS = %w[identify survey season decide mix work recheck replant today records formats].freeze

# Parts of the paths that are asked for; nil for all.
def asked(words)
  case words
  in [] then nil
  in ["--only", name] then [name]
  in ["--changed"]
    files = `git diff --name-only HEAD; git ls-files --others --exclude-standard`.split
    files.flat_map { |file| file.split(%r{[/_.]}) & ROOMS }.uniq.push("house")
  else abort "Try: bin/test, bin/test --only NAME, bin/test --changed"
  end
end

Dir.chdir(Thistle::ROOT)
names = asked(ARGV)
wanted = ->(file) { names.nil? || names.any? { |name| file.delete_prefix("test/").include?(name) } }
$LOAD_PATH.unshift(Thistle::ROOT, __dir__)
Thistle::Core::Knowledge.shipped
[Thistle::Core, Thistle::Formats, Thistle::StandIns].each { |room| Thistle::LOADER.eager_load_namespace(room) }
ENV["THISTLE_LAND"] = Dir.mktmpdir("land") # where the first that loads the demo land leaves it for the others
# Files of a folder share a process; each of the browser's has its own.
browser, rest = (Dir["test/**/*_test.rb"] - [VIEWS]).select(&wanted)
                                                    .partition { |file| file.start_with?("test/browser/") }
folders = rest.group_by { |file| file == WALK ? WALK : File.dirname(file) }
batches = folders.map { |folder, files| Batch.new(folder, files) }
batches += browser.map { |file| Batch.new(file, [file]) }
batches.sort_by! { |batch| [LONG.index(batch.name) || LONG.size, batch.name] }
batches.insert(1, *SIZES.map { |name, only| Batch.new("#{VIEWS}, #{name}", [VIEWS], only) }) if wanted[VIEWS]
abort "No test has that in its path." if batches.empty?

queue = Queue.new
batches.each { |batch| queue << batch }
queue.close
totals, wrong, failed = Hash.new(0), [], false
lock = Mutex.new
Array.new(Etc.nprocessors + 1) do
  Thread.new do
    while (batch = queue.pop)
      out, passed, seconds = batch.run
      lock.synchronize do
        puts "— #{batch.name}, #{seconds} s"
        puts out.lines.grep_v(/\A(Run options|# Running|\s*\z)/).join
        counts = out.scan(/^(\d+) runs, (\d+) assertions, (\d+) failures, (\d+) errors, (\d+) skips/)
        counts.each { |numbers| COUNTED.zip(numbers) { |what, number| totals[what] += number.to_i } }
        wrong.concat(batch.alone(out))
        failed ||= !passed || counts.empty?
      end
    end
  end
end.each(&:join)

FileUtils.rm_rf(ENV.fetch("THISTLE_LAND"))
puts "To run alone what went wrong:", wrong.map { |command| "  #{command}" } if wrong.any?
puts COUNTED.map { |what| "#{totals[what]} #{what}" }.join(", ")
exit(!failed && totals["runs"].positive? && (totals["failures"] + totals["errors"]).zero?)
