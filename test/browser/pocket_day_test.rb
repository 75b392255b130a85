# frozen_string_literal: true

require "support/browser"
require "support/phone"

module Thistle
  # A whole work day in the field, through the real pages, without signal from the first stop to the last.
  class PocketDayBrowserTest < BrowserTest
    include Testing::Phone

    # Eleven stops and the walk of an edge, without signal from the first to the last: every tap is held once there is
    # one, in its order, and the edge is a patch.
    def test_a_work_day_of_eleven_stops
      day = Store::WorkDay[1]
      take_along(day)
      @line.set(:dead)
      visit "/work/days/#{day.id}/field"
      codes = all(".field-card strong", minimum: 11).first(11).map(&:text)

      assert_equal 11, codes.size
      codes.each { |code| at_a_stop(day, code) }
      walk_an_edge
      @line.set(:through)
      visit "/pocket"
      execute_script("dispatchEvent(new Event('online'))")

      assert_text "Nothing waits", wait: LONG
      told = Store::Tap.where(work_day_id: day.id).order(:id).all.group_by { |tap| Store::Patch[tap.patch_id].code }

      assert_equal codes.sort, told.keys.sort
      kinds = told.transform_values { |taps| taps.map(&:kind) - %w[people] }

      assert_equal [%w[start plants stop]], kinds.values.uniq
      assert_equal "polygon", made_patch.shape.kind
    end

    private

    def at_a_stop(day, code)
      visit "/work/days/#{day.id}/field"
      find(".field-card", text: code).click

      assert_text "No signal."
      click_button "Start", exact: true

      assert_selector "[data-began]", text: /\A0:00:\d\d\z/
      click_button "+10", match: :first

      assert_selector "[data-count='plants-']", text: /\A10\z/
      stays_after_a_tap_of_people if code == "Q-04"
      visit current_path
      click_button "Stop"

      assert_button "Start", exact: true
      assert_text "kept on this phone: no signal."
    end

    # One more than were there; the buttons go on from that.
    def stays_after_a_tap_of_people
      there = find("[data-count='people-']").text.to_i
      click_button (there + 1).to_s, exact: true

      assert_selector "[data-count='people-']", exact_text: (there + 1).to_s
      assert_button (there + 2).to_s, exact: true
      assert_button there.to_s, exact: true
    end

    def walk_an_edge
      browser = page.driver.browser
      browser.execute_cdp("Browser.grantPermissions", permissions: ["geolocation"])
      visit "/survey/walk"
      click_button "Start walking"
      [[0, 0], [5, 0], [10, 0], [10, 5], [10, 10], [5, 10], [0, 10], [0, 5], [0, 1]].each do |x, y|
        browser.execute_cdp("Emulation.setGeolocationOverride", latitude: 38.005 + (y / 110_996.0),
                            longitude: -91.403 + (x / 87_832.0), accuracy: 0.5)
        sleep 0.3
      end
      assert_text(/\d fixes, .* m walked/)
      click_button "Finish"

      assert_current_path %r{\A/pocket/record}
      eventually { evaluate_script("document.querySelector('#new [name=geometry]').value").include?("Polygon") }
      find("summary", text: "A new patch, here").click unless has_css?("#new", wait: 2)
      within("#new") { click_button "Record the patch" }

      assert_text "records to send"
    end
  end
end
