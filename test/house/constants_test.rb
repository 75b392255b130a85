# frozen_string_literal: true

require "test_helper"
require "support/constants"

module Thistle
  # What a file names is there: Ruby looks only when it comes by, and a name that has gone is met by people first.
  class ConstantsTest < Minitest::Test
    NAMED = /\bThistle(?:::[A-Z]\w*)+/

    def setup
      Testing.demo
      LOADER.eager_load
    end

    def test_every_constant_of_the_code_is_there
      files = Dir.chdir(ROOT) { Dir["{#{Constants::HOUSE.join(",")}}/**/*.rb"] }.grep_v(/migrations/)

      assert_empty(files.flat_map { |file| Constants.missing(file) })
    end

    def test_every_constant_of_a_view_is_there
      missing = Dir["#{ROOT}/web/{views,plots}/**/*.erb"].flat_map do |path|
        File.read(path).scan(NAMED).uniq.reject { |name| Object.const_defined?(name) }.map { |name| "#{path}: #{name}" }
      end

      assert_empty missing
    end
  end
end
