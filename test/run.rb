# frozen_string_literal: true

# Runs every test file in processes of their own, as many at a time as there are cores, the longest first. Prints what each
# process printed when it ends, and a line for all of them.
require "etc"

root = File.expand_path("..", __dir__)
# Files of a folder share a process; the browser's, which wait for Chromium, are several.
browser, rest = Dir.chdir(root) { Dir["test/**/*_test.rb"] }.partition { |file| file.start_with?("test/browser/") }
heavy = { "test/browser/views_test.rb" => 0, "test/browser/survey_test.rb" => 1 }
batches = browser.sort_by { |file| heavy.fetch(file, 9) }.zip
batches += rest.group_by { |file| File.dirname(file) }.values.map(&:sort)

queue = Queue.new
batches.each { |batch| queue << batch }
queue.close
COUNTED = %w[runs assertions failures errors skips].freeze
totals = Hash.new(0)
failed = false
lock = Mutex.new
Array.new(Etc.nprocessors) do
  Thread.new do
    while (batch = queue.pop)
      load_all = batch.map { |file| "require './#{file}'" }.join(";")
      out = IO.popen(["ruby", "-Itest", "-I.", "-e", load_all], chdir: root, err: %i[child out], &:read)
      ok = $?.success? # rubocop:disable Style/SpecialGlobalVars -- of this thread
      lock.synchronize do
        puts "— #{batch.size == 1 ? batch.first : File.dirname(batch.first)}", out.lines.grep_v(/\A(Run options|# Running|\s*\z)/).join
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
