# frozen_string_literal: true

require "support/browser"

module Thistle
  # From nothing to the first patch, as a person at a desk does it.
  class BeginBrowserTest < BrowserTest
    def test_from_nothing_to_the_first_patch
      Sequel::Model.db[:properties].update(put_away_at: Time.now)
      visit "/"

      assert_selector "h1", text: "Your first property"
      assert_selector "#map[data-ready='borders']"
      fill_in "Name of the land", with: "Harrow Creek"
      corners("38.000, -91.410", "38.000, -91.400", "38.010, -91.400", "38.010, -91.410")
      click_button "An area"

      assert_selector "#place", text: "Missouri, United States of America"
      assert_selector "#place", text: "Clock: America/Chicago"
      click_button "Begin"

      assert_text "Harrow Creek has begun."
      assert_selector "#patch-form[open]"
      corners("38.005, -91.405")
      click_button "A point"
      select "Garlic mustard", from: "Plant"
      click_button "Add patch"

      assert_text "H-01 is on the map"
      visit "/"

      assert_text "over 1 property"
      assert_text "H-01"
      assert_empty complaints
    end

    private

    def corners(*lines)
      find("summary", text: "Or type the corners", match: :first).click
      find("textarea[data-corners]", match: :first).set(lines.join("\n"))
    end
  end
end
