# frozen_string_literal: true

require "nokogiri"

module Thistle
  # Reads a page as people do, and says what stops a reader (WORDS.md): sentences that are too long, words that have
  # another, bare keys, values that are none, units of the other system, a plural that does not fit its number.
  class Reading
    LONGEST = 25 # words of a sentence; a list may go on
    LIST = 3 # commas from which a sentence is one
    BLOCKS = %w[p li h1 h2 h3 h4 td th dt dd label legend summary option button figcaption div caption].freeze
    INLINE = %w[a b strong em i small span abbr time sup sub].freeze
    NONE = /\bnil\b|\bNaN\b|\bInfinity\b|[#%]\{|\{\w+:|\bundefined\b|#<\w/
    BARE_KEY = /\b[a-z]+_[a-z_]+\b/
    EMPTY_RANGE = /\b0 to 0\b|(?<![\d.,])0 g\b/
    # Label units are what labels say; a length in both systems is everybody's.
    FEET = %r{(?<!/)\b\d+ (?:ft|ac|lb|fl oz|qt|pt|gal|mph|°F)\b(?!/)(?![^(]*\))}
    METRES = %r{(?<!/)\b\d+ (?:km|cm|ha|kg|°C|km/h|m)\b(?!/)(?! \()}
    THINGS = %w[plant stem seedling hour day year visit record week month rule].freeze
    ONE = /(?<![\d.,\u202F])1 (?:#{THINGS.map { |one| "#{one}s" }.join("|")}|patches|people)\b/
    MANY = %r{(?<![\d.,/])(?:[2-9]|\d\d+) (?:#{THINGS.join("|")}|patch|person)\b(?![-’'])}
    # What WORDS.md has another word for, as a page would say it.
    UNSAID = /\b(?:in its hand|one makes all|to quiet|falls beside|from the other end|by habit)\b/i

    # units: "us" or "metric", of the property at hand.
    def initialize(html, units:)
      @page = Nokogiri::HTML5(html)
      @page.css("script, style, svg, textarea, input, code, pre, .visually-hidden, .story .note").each(&:remove)
      @other = units == "us" ? METRES : FEET
    end

    # ["what is wrong: the text"]
    def faults = (texts.flat_map { |text| faults_of(text) } + long).uniq

    # What stands in the page, a block each.
    def texts = @texts ||= @page.css(BLOCKS.join(",")).map { |node| own(node) }.reject(&:empty?)

    private

    # A block's words without those of blocks in it.
    def own(node)
      node.children.map { |child| said(child) }.join.gsub(/[[:space:]]+/, " ").strip
    end

    def said(child)
      return child.text if child.text?

      INLINE.include?(child.name) ? child.children.map { |inner| said(inner) }.join : " "
    end

    def faults_of(text)
      { "none" => NONE, "bare key" => BARE_KEY, "empty range" => EMPTY_RANGE, "other units" => @other,
        "plural" => ONE, "singular" => MANY, "another word" => UNSAID }
        .filter_map { |what, sign| "#{what} (#{text[sign]}): #{text[0, 160]}" if text.match?(sign) }
    end

    def long
      texts.flat_map { |text| text.split(/(?<=[.!?:;])\s+/) }.filter_map do |sentence|
        next if sentence.count(",") >= LIST

        number = sentence.scan(/[[:alpha:]][[:alpha:]’'-]*/).size
        "#{number} words: #{sentence[0, 220]}" if number > LONGEST
      end
    end
  end
end
