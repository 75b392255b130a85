# frozen_string_literal: true

require "test_helper"

module Thistle
  # A view shows what it was given: it asks the file nothing (web/lists.rb, the boards and desks do).
  class HouseViewsTest < Minitest::Test
    ASKS = /Store::[A-Z]\w*\.[a-z]|_dataset\b|\blive_patches\b|\.(?:where|select_map|eager)\(/

    def test_no_view_asks_the_file
      asking = Dir["#{ROOT}/web/{views,plots}/**/*.erb"].flat_map do |path|
        File.readlines(path).each_with_index.filter_map { |line, n| "#{path}:#{n + 1}" if line.match?(ASKS) }
      end

      assert_empty asking
    end
  end
end
