# frozen_string_literal: true

require "support/browser"

module Thistle
  # What was entered wrong is put right, in the real interface.
  class RecordsBrowserTest < BrowserTest
    def story = find("ol.story").text

    def test_a_check_typed_wrong_is_corrected_taken_back_and_brought_back
      visit "/survey/patches/#{Testing.patch("Q-07").id}"
      find("li.check", text: "18 missed, 150 seedlings").click_link("correct")

      assert_selector "h1", text: "Check of April 25, 2026"
      fill_in "Missed stems", with: "0"
      fill_in "Seedlings", with: "0"
      select "0–5 %", from: "Cover left"
      within(first("form.sheet")) { fill_in "Your name", with: "J. Finch" }
      click_button "Keep the correction"

      assert_text "Why is kept with the record: say why"
      assert_field "Missed stems", with: "0"
      within(first("form.sheet")) { fill_in "Why", with: "Counted on the next patch" }
      click_button "Keep the correction"

      assert_text "Corrected. What it said before stays with it."
      assert_selector "s", text: "150"
      click_link "Garlic mustard, Q-07"

      assert_selector ".lead", text: "quiet"
      find("li.check", text: "nothing alive").click_link("correct")
      find("summary", text: "Withdraw this record").click
      within(find("details.patch-form")) do
        fill_in "Your name", with: "J. Finch"
        fill_in "Why", with: "It was another day"
        click_button "Take it back"
      end

      assert_text "This record is withdrawn"
      fill_in "Your name", with: "M. Oakes"
      click_button "Bring it back"

      assert_text "Brought back: it counts again"
      assert_text "Taken back by J. Finch: It was another day"
    end

    def test_a_visit_asked_for_by_hand_is_made_and_taken_back
      visit "/survey/patches/#{Testing.patch("Q-06").id}"
      find("summary", text: "Ask for a visit").click
      fill_in "What for", with: "Look at the spring"
      click_button "Ask"

      assert_selector ".row-card", text: "Look at the spring"
      find(".row-card", text: "Look at the spring").click_button("Done")

      assert_text "Done: it is off the list"
      click_button "Undo"

      assert_selector ".row-card", text: "Look at the spring"
      find(".row-card", text: "Look at the spring").click_button("Not needed")

      assert_text "The visit is off the list"
      assert_no_selector ".row-card", text: "Look at the spring"
    end
  end
end
