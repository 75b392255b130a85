# frozen_string_literal: true

require "chunky_png"
require "support/browser"

module Thistle
  # A check with a picture lined up with the last one, a slider that moves the years ahead, a patch's life that comes by
  # itself.
  class RecheckBrowserTest < BrowserTest
    def patch = Testing.patch("Q-06")

    def picture(shade)
      Tempfile.new(["p", ".png"]).tap do |file|
        ChunkyPNG::Image.new(60, 40, ChunkyPNG::Color.rgb(shade, shade, shade)).save(file.path)
      end.path
    end

    def test_a_check_with_the_last_picture_over_the_camera
      Store::Picture.keep(patch, Formats::Image.new("p.png", File.binread(picture(80))), moment: "before",
                                                                                         today: Testing::TODAY)
      resize("phone")
      visit "/recheck/patches/#{patch.id}"
      click_button "One more, Stubs alive"

      assert_text "Next: treat 1 again, now, before they seed."
      click_button "Line it up with the last one"
      within(".camera") do
        assert_selector "img[alt='The last picture, faint']"
        eventually { evaluate_script("document.querySelector('.camera video').videoWidth").to_i.positive? }
        click_button "Take it"
      end

      assert_text "The picture is taken."
      click_button "Keep this check"

      assert_text "Check kept: Q-06 is regrowing."
      assert_equal [1, 2], [patch.checks.last.resprouts, Store::Picture.every(patch).size]
      slider = find("[data-slid] input")
      execute_script("arguments[0].value = 20; arguments[0].dispatchEvent(new Event('input', { bubbles: true }))",
                     slider)

      assert_equal "20%", evaluate_script("document.querySelector('[data-slid]').style.getPropertyValue('--seen')")
      assert_selector "svg.life", wait: 15
      assert_empty complaints
    end

    def test_the_years_ahead_answer_while_one_slides
      visit "/recheck/patches/#{Testing.patch("Q-07").id}/outlook"
      before = texts(".way-figures")
      execute_script("const at = document.querySelector('#f-found'); at.value = 60; " \
                     "at.dispatchEvent(new Event('change', { bubbles: true }))")

      eventually { texts(".way-figures") != before }
      choose "Stop now", allow_label_click: true

      assert_text "Stop now: quiet"
      assert_match(/found=60/, current_url)
      assert_match(/show=stopped/, current_url)
    end
  end
end
