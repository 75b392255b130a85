# frozen_string_literal: true

require "test_helper"
require_relative "../support/words_of"

# What is said reads the same on both sides of the sea (WORDS.md, rule 12): no word that one country spells otherwise,
# no length or warmth in one system of units alone. Rather than two spellings, our texts use words that have one;
# “grey” stays, which American dictionaries list as well (recalled), and “sulfate” is what chemists of both write.
class EverywhereWordsTest < Minitest::Test
  ONE_COUNTRY = /\b(?:\w*met(?:re|er)s?|\w*lit(?:re|er)s?|\w*colou?r\w*|licen[cs]es?|neighbou?r\w*|label?l(?:ed|ing)|
                 cent(?:re|er|red|ered)s?|mou?ld\w*|plou?gh\w*|t[iy]res?|[ck]u?e?rbs?|fib(?:re|er)s?|vapou?rs?|
                 sulfur\w*|\w*sulph\w*|alumini?um|catalog(?:ue)?s?|judge?ments?|travell?(?:ed|ers?|ing)|
                 programmes?|favou?r\w*|harbou?r\w*|behaviou?r\w*|odou?rs?|vigou?r\w*|savou?r\w*|honou?r\w*|flavou?r\w*|
                 labou?r\w*|practis\w*|defen[cs]e|offen[cs]e|cancell?(?:ed|ing)|analy[sz]e[ds]?|manoeuv\w*|maneuv\w*|
                 draughts?|enroll?\w*|fulfill?\w*|skill?ful\w*|whilst|learnt|burnt|spelt|spoilt|s[ck]eptic\w*|storeys?|
                 artefact\w*|artifact\w*|cosy|cozy|ageing|calib(?:re|er)s?|levell?ed|modell?ed|fuell?ed|shovell?ed|
                 woollen|gr[ae]yscale|gray\w*|
                 (?:organ|recogn|fertil|steril|polar|galvan|author|real|minim|maxim|standard)i[sz]\w+)\b/xi
  # Names, which are what they are; what a label calls its number in a country that spells it so; units' own words,
  # which people may type.
  NAMES = /Traveller's joy|versicolor|organisms|authorisation number|\bdiscolor\b|perimeter|diameter|parameter/i
  ONLY_METRIC = %r{(?<![\d/])\d+(?:[.,]\d+)? (?:km|m|cm|mm|°C)(?![\w²³/°])(?!\s\()}
  ELSEWHERE = %r{\Acore/(?:units|mix/way|season/gauge)|calibration|\Ademo/} # which say units by turns, or as labels do
  ONLY_US = /\d+ (?:ft|in|inch(?:es)?|feet|mi|°F)\b(?! (?:of|\d))(?![^(]*\))/

  def test_no_word_is_spelled_otherwise_in_another_country
    found = Thistle::WordsOf.everywhere.flat_map do |file, texts|
      texts.filter_map do |text|
        word = text.gsub(NAMES, "")[ONE_COUNTRY]
        "#{file}: #{word}: #{text[0, 120]}" if word && !code?(text)
      end
    end

    assert_empty found
  end

  def test_what_is_measured_stands_in_both_systems
    told = Thistle::WordsOf.everywhere.reject { |file, _| file.match?(ELSEWHERE) }
    found = told.flat_map do |file, texts|
      texts.filter_map { |text| "#{file}: #{text[0, 160]}" if text.match?(ONLY_METRIC) || text.match?(ONLY_US) }
    end

    assert_empty found
  end

  private

  # Keys in a row, and what a file's columns may be called.
  def code?(text) = text.match?(/\A[a-z_0-9 ]*_[a-z_0-9 ]*\z/)
end
