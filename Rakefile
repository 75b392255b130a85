# frozen_string_literal: true

require "rake/testtask"

Rake::TestTask.new(:test) do |task|
  task.libs << "test"
  task.pattern = "test/**/*_test.rb"
  task.warning = false
end

desc "Measure speed, as ratios in one run; `rake bench pages`: pages that gather; " \
     "`rake bench hands`: a crowd, growth, copies; " \
     "`rake bench faults`: a thousand kills; `rake bench hostile`: 10 000 files; " \
     "`rake bench costly`: the dearest pages, four at once; `rake bench walk`: every address; " \
     "`rake bench pocket`: the rules on a phone; " \
     "`rake bench phones`: a thousand records and two hundred photographs over a bad line"
alone = %w[pages hands faults drawing hostile costly walk pocket phones] # benches that bring a file of their own
task :bench do
  names = ARGV.drop(1)
  names.each { |name| task(name) } # not tasks of their own
  next names.each { |name| ruby(alone.include?(name) ? "bench/#{name}.rb" : "bench/run.rb #{name}") } if names.any?

  ruby "bench/run.rb"
  ruby "bench/drawing.rb"
  ruby "bench/hands.rb"
end

desc "Make docs/screenshots from the demo data"
task(:screenshots) { ruby "test/screenshots.rb" }

desc "Write docs/schema.md from the migrations"
task :schema do
  require_relative "thistle"
  require_relative "test/support/schema_page"
  File.write("docs/schema.md", Thistle::SchemaPage.new.text)
end

desc "Write down how many public methods of core and formats have a docstring, by room"
task(:docstrings) { sh({ "WRITE" => "yes" }, "ruby", "-Itest", "test/house/docstrings_test.rb") }

desc "Count lines: tests against hand-written code"
task :stats do
  code = FileList["thistle.rb", "Rakefile", "bin/*",
                  "{core,store,formats,stand_ins,pocket,web,demo,bench}/**/*.{rb,erb,js,scss}"]
  tests = FileList["test/**/*.{rb,js}"]
  count = ->(files) { files.sum { |file| File.readlines(file).count { |line| !line.strip.empty? } } }
  folders = code.group_by { |file| file.include?("/") ? file[%r{\A[^/]+}] : "." }
  folders.each { |folder, files| puts format("%-10s %6d", folder, count.call(files)) }
  lines, checks = count.call(code), count.call(tests)
  puts format("%-10s %6d  (%d %% of %d)", "test", checks, 100 * checks / lines, lines)
end

task default: :test

desc "Print all that a room says, file by file, to be read in one go: rake 'words[mix]'; every room without one"
task :words, [:room] do |_, asked|
  require_relative "thistle"
  require_relative "test/support/words_of"
  (asked[:room] ? [asked[:room]] : Thistle::WordsOf::ROOMS).each do |room|
    Thistle::WordsOf.new(room).texts.each { |file, texts| puts "", file, *texts.map { |text| "  #{text}" } }
  end
end
