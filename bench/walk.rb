# frozen_string_literal: true

# `rake bench walk`: every address and every form of the application with every odd value at every parameter, none of
# them our fault and none over ten seconds. The tests ask a sample of each (test/web/walk_test.rb).
ENV["WALK"] ||= "all"
root = File.expand_path("..", __dir__)
$LOAD_PATH.unshift("#{root}/test", root)
require "web/walk_test"
