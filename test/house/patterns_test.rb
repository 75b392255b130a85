# frozen_string_literal: true

require "ripper"
require "test_helper"

module Thistle
  # No pattern takes longer than in proportion to what it reads: each is fed 100 kB of its worst letter.
  class PatternsTest < Minitest::Test
    # A pattern as it is written, and where.
    Pattern = Struct.new(:source, :options, :place) do
      def regexp = @regexp ||= Regexp.new(source, options)
      # Letters that it could go on with, and some that it could not.
      def letters = (source.gsub(/\\./, "").scan(/[^\[\]()|^$?*+{}]/) + ["a", "A", "0", " ", "\n", ",", "é"]).uniq
    end

    LENGTH = 100_000
    WITHIN = 8 # seconds for all letters of a pattern; a square of 100 kB takes a minute

    def test_each_is_linear
      patterns = Dir["#{ROOT}/{core,store,formats,web,stand_ins}/**/*.{rb,erb}"].flat_map { |file| found_in(file) }
      slow = patterns.uniq(&:source).reject { |pattern| linear?(pattern) }

      assert_operator patterns.size, :>, 70
      assert_empty slow.map { |pattern| "#{pattern.place} /#{pattern.source}/" }
    end

    private

    def linear?(pattern)
      Core::Apart.call do
        pattern.letters.all? do |letter|
          texts = [letter * LENGTH, "#{letter * LENGTH}\0", "#{seed(pattern)}#{letter * LENGTH}\0"]
          texts.all? { |text| quick?(pattern.regexp, text) }
        end
      end
    rescue Core::BadInput
      false
    end

    def quick?(regexp, text)
      began = Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID)
      text.match?(regexp)
      Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID) - began < WITHIN
    rescue Encoding::CompatibilityError
      true
    end

    # The letters with which it begins.
    def seed(pattern) = pattern.source[/\A\^?(\w*)/, 1]

    def found_in(file)
      code = File.read(file)
      code = code.scan(/<%[-=#]*(.*?)-?%>/m).join("\n") if file.end_with?(".erb")
      found = read(Ripper.lex(code), file.delete_prefix("#{ROOT}/"))
      # Between the parts of a view a lone slash looks like the beginning of one.
      file.end_with?(".erb") ? found.reject { |pattern| pattern.source.include?("\n") } : found
    end

    # Literals without anything put into them; a placeholder stands for what is.
    def read(tokens, file)
      found, open = [], nil
      tokens.each do |(line, _), kind, text|
        case kind
        when :on_regexp_beg then open = [+"", line]
        when :on_tstring_content then open&.first&.<<(text)
        when :on_embexpr_beg then open&.first&.<<("x")
        when :on_regexp_end
          found << Pattern.new(open.first, options(text), "#{file}:#{open.last}") if open
          open = nil
        end
      end
      found
    end

    def options(ending) = { "i" => 1, "x" => 2, "m" => 4 }.sum { |letter, bit| ending.include?(letter) ? bit : 0 }
  end
end
