# frozen_string_literal: true

require "support/browser"

module Thistle
  # A steward says what the year does, and the application follows.
  class SeasonBrowserTest < BrowserTest
    def test_the_oaks_are_leafing
      visit "/season"
      row = find("details.mark-row", text: "full leaf")
      row.find("summary").click
      row.fill_in "On", with: Date.new(2026, 5, 9)
      row.fill_in "By", with: "T. Abara"
      row.click_button "Seen that day"

      assert_text "Full leaf seen on May 9."
      assert_selector "details.mark-row.come", text: /May 9\s+full leaf\s+seen here/
      click_button "Undo"

      assert_selector "details.mark-row", text: /in the forecast/
    end

    # The card of a plant opens its windows in words and takes what is seen of it.
    def test_a_phase_is_seen_and_its_seed_comes_sooner
      visit "/season"
      card = find("#year-amur_honeysuckle")
      card.find("summary").click

      assert_match(/soil and weather allow it on/, card.text)
      card.select "green seed", from: "It is"
      card.check "It had just begun"
      card.click_button "Seen"

      assert_selector "p.said"
      find("#year-amur_honeysuckle summary").click

      assert_selector "#year-amur_honeysuckle", text: /Dates adjusted to your sightings:.*ripe seed \d+ days earlier/
    end

    def test_why_not_and_what_the_label_says
      visit "/season/fit"
      click_link "Spraying leaves", match: :first
      before = find(".verdict-line").text
      click_link "The shelf"
      click_link "Type a label"
      fill_in "Name, as you call it", with: "Leaf spray"
      select "Glyphosate, isopropylamine salt", from: "f-active1"
      fill_in "f-percent1", with: "41"
      fill_in "Highest wind", with: "5"
      fill_in "Lowest wind", with: "7"
      click_button "Put it on the shelf"

      assert_text "Highest wind is below the lowest"
      fill_in "Lowest wind", with: "3"
      click_button "Put it on the shelf"
      click_link "Good hours"
      select "Leaf spray", from: "The product used for this here"
      click_button "Keep"

      assert_text "The label of Leaf spray goes before planning values."
      refute_equal before, find(".verdict-line").text
      unless all("details.mark-row").first.has_css?("[open]", wait: 0)
        all("details.mark-row").first.find("summary").click
      end

      assert_text(%r{wind \d+ km/h, over 5 km/h})
    end

    def test_a_station_of_ones_own
      warmth = ->(date) { (20 * Math.sin((date.yday - 110) / 58.1)).round }
      rows = (Date.new(2024, 1, 1)..Testing::TODAY).map do |date|
        "#{date.month}/#{date.day}/#{date.year},#{60 + warmth[date]},#{40 + warmth[date]},0.2"
      end
      Tempfile.create(["ridge", ".csv"]) do |file|
        file.write("Ridge station\nDate,High (F),Low (F),Rain (in)\n#{rows.join("\n")}")
        file.flush
        visit "/season/weather"
        attach_file "file", file.path
        click_button "Look at it"
        select "highest temperature", from: "What High (F) is"
        select "lowest temperature", from: "What Low (F) is"
        select "°F", from: "Unit of High (F)"
        select "°F", from: "Unit of Low (F)"
        click_button "Look again"

        assert_text "No day is missing."
        click_button "Take it"
      end

      assert_text "Taken: the year is worked out from your own station now."
      click_link "The year"

      assert_text "From 2 years of this property's own station and 8 years of broad regional values before it."
    end

    # The crew lead on a phone: what the day is good for stands first, and one tap starts the record.
    def test_today_on_a_phone
      resize "phone"
      visit "/"
      tops = [".conditions", "h2.rule"].map { |css| first(css).native.location.y }

      assert_equal tops.sort, tops
      first("a", text: "Start").click

      assert_selector "h2", text: /\S/
      assert_match %r{\A/(work|identify)}, page.current_path
    end
  end
end
