# frozen_string_literal: true

require "support/browser"
require_relative "../formats/image_test"

module Thistle
  # A volunteer with a phone and an unknown plant: to a name by following what is asked, or to a sheet for someone who
  # knows.
  class IdentifyBrowserTest < BrowserTest
    # What a garlic mustard in flower shows; everything else can't be told.
    SEEN = { "habit" => "herb", "leaf_type" => "simple", "leaf_margin" => "toothed", "leaf_shape" => "heart",
             "leaf_arrangement" => "alternate", "leaf_base" => "stalk",
             "flower_colour" => "white", "petals" => "four", "flower_cluster" => "head", "rosette" => "flat",
             "height" => "60", "habitat" => "woods", "smell" => "garlic",
             "root_colour" => "s_bend", "veins" => "hand", "leaf_length" => "9", "flower_width" => "7",
             "stand" => "carpet", "stem_section" => "round",
             "root_form" => "taproot", "green_when" => "early", "flower_stalk" => "short", "bracts" => "plain",
             "stem_surface" => "smooth" }.freeze

    def setup
      super
      resize "phone"
    end

    def test_a_volunteer_follows_what_is_asked_to_a_name
      visit "/identify?patch=#{Testing.patch("Q-11").id}"
      looks = 0
      until page.has_text?("Settled: Garlic mustard", wait: 0) || looks == 16
        answer_what_is_asked
        looks += 1
      end

      assert_text "Settled: Garlic mustard"
      assert_operator looks, :<=, 14
      click_button "Settle Q-11 as Garlic mustard"

      assert_text "Settled: Garlic mustard."
      assert_equal "garlic_mustard", Testing.patch("Q-11").plant_key
      assert_empty complaints
    end

    def test_an_answer_is_changed_ruled_out_and_taken_away
      visit "/identify?c[habit]=shrub&c[leaf_arrangement]=opposite"
      find(".answered", text: "Leaves on the stem").find("summary", match: :first).click
      within("#look-leaf_arrangement") { find("label.glyph-card", text: "alternate").click }

      assert_selector ".answered", text: /Leaves on the stem\s+alternate/
      find(".answered", text: "Leaves on the stem").find("summary", match: :first).click
      within(".answered", text: "Leaves on the stem") { click_link "Remove this answer" }

      assert_no_selector ".answered", text: "Leaves on the stem"
      find("#group-leaf > summary").click if page.has_no_selector?("#look-leaf_arrangement", wait: 0)
      within("#look-leaf_arrangement") do
        find("summary", text: "rule some out").click
        find("label", text: "not opposite").click
      end

      assert_selector ".answered", text: /Leaves on the stem\s+ruled out: opposite/
      assert_includes current_url, "not%5Bleaf_arrangement%5D%5B%5D=opposite"
    end

    def test_what_cannot_be_settled_becomes_a_sheet_with_photographs
      visit "/identify?c[habit]=vine&c[leaf_type]=three"

      assert_text "This may be Poison ivy, which can harm you"
      click_button "Make a report sheet"

      assert_text "Do not remove it"
      Dir.mktmpdir do |dir|
        File.binwrite(File.join(dir, "leaf.jpg"), ImageTest.jpeg)
        attach_file "photos[]", File.join(dir, "leaf.jpg")
        click_button "Add"

        assert_text "1 photograph added"
      end

      assert_text "38.00120, -91.40210"
      select "Hog peanut (Amphicarpaea bracteata)", from: "It is"
      fill_in "Named by", with: "R. Lindqvist"
      fill_in "On", with: Testing::TODAY
      click_button "Keep the answer"

      assert_text "Named: Hog peanut"
    end

    def test_practice_says_right_or_wrong_and_what_tells_them_apart
      visit "/identify/practice"
      3.times do
        find(".answers button", match: :first).click

        assert_selector ".verdict-line h3", text: /Right|Not this time/
        click_link "Next"

        assert_selector ".answers button", count: 4
      end
      assert_text(/\d+ of \d+ right/)
    end

    private

    # The suggested look: the state that the plant shows, a number, or can't tell.
    def answer_what_is_asked
      look = find(".looks.first")
      key = look[:id].delete_prefix("look-")
      answer = SEEN.fetch(key, "unknown")
      if Core::Knowledge.shipped.characters[key].measured? && answer != "unknown"
        look.find("input").set("#{answer}\t")
      else
        look.find("input[type=radio][value='#{answer}']", visible: :all).find(:xpath, "..").click
      end

      assert_no_selector ".looks.first#look-#{key}"
    end
  end
end
