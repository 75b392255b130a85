# frozen_string_literal: true

# Runs every test file in processes of their own, one more at a time than there are cores, since the browser's wait for
# Chromium now and then; the longest first. Prints what each process printed when it ends, and a line for all of them.
require "etc"

Batch = Struct.new(:name, :files, :only)
COUNTED = %w[runs assertions failures errors skips].freeze

root = File.expand_path("..", __dir__)
# Files of a folder share a process; each of the browser's has its own, and the views at each size.
browser, rest = Dir.chdir(root) { Dir["test/**/*_test.rb"].sort }.partition { |file| file.start_with?("test/browser/") }
views = browser.grep(/views_test/)
batches = { "at a desk" => "/desk/", "on a phone" => "/views_phone/", "the rest" => "/field|keys|crossed/" }
          .map { |name, only| Batch.new("#{views.first}, #{name}", views, only) }
batches += (browser - views).sort_by { |file| file.include?("survey") ? 0 : 1 }.map { |file| Batch.new(file, [file]) }
folders = rest.group_by { |file| File.dirname(file) }.map { |folder, files| Batch.new(folder, files) }
long, others = folders.partition { |batch| %w[test/core test/bin].include?(batch.name) }
batches = [*batches.first(2), *long.sort_by { |batch| -batch.files.size }, *batches.drop(2), *others]

queue = Queue.new
batches.each { |batch| queue << batch }
queue.close
totals = Hash.new(0)
failed = false
lock = Mutex.new
Array.new(Etc.nprocessors + 1) do
  Thread.new do
    while (batch = queue.pop)
      load_all = batch.files.map { |file| "require './#{file}'" }.join(";")
      only = batch.only ? ["--", "--name", batch.only] : []
      started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      out = IO.popen(["ruby", "-Itest", "-I.", "-e", load_all, *only], chdir: root, err: %i[child out], &:read)
      ok = $?.success? # rubocop:disable Style/SpecialGlobalVars -- of this thread
      lock.synchronize do
        puts "— #{batch.name}, #{(Process.clock_gettime(Process::CLOCK_MONOTONIC) - started).round} s"
        puts out.lines.grep_v(/\A(Run options|# Running|\s*\z)/).join
        out.scan(/^(\d+) runs, (\d+) assertions, (\d+) failures, (\d+) errors, (\d+) skips/) do |numbers|
          COUNTED.zip(numbers) { |what, number| totals[what] += number.to_i }
        end
        failed ||= !ok || totals["runs"].zero?
      end
    end
  end
end.each(&:join)

puts COUNTED.map { |what| "#{totals[what]} #{what}" }.join(", ")
exit(!failed && (totals["failures"] + totals["errors"]).zero?)
