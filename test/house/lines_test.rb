# frozen_string_literal: true

require "test_helper"

module Thistle
  # What rubocop and prettier do not look at: views are read a line at a time too.
  class LinesTest < Minitest::Test
    MOST = 120

    def test_no_line_of_a_view_is_long
      long = Dir["#{ROOT}/web/{views,plots}/**/*.erb"].flat_map do |path|
        lines = File.readlines(path, chomp: true, encoding: "UTF-8")
        lines.each_with_index.filter_map { |line, n| "#{path}:#{n + 1}" if line.size > MOST }
      end

      assert_empty long
    end
  end
end
