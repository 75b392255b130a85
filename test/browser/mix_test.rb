# frozen_string_literal: true

require "support/browser"

module Thistle
  # At the tailgate: a strength typed in any way, a sprayer measured with a thumb, the card.
  class MixBrowserTest < BrowserTest
    def strength(kind) = find("#as-#{kind}").value.to_f

    def test_a_strength_typed_in_any_way
      visit "/mix?product=#{Store::Product.first(name: "Stump concentrate").id}"

      assert_field "as-active", with: "20.5"
      fill_in "as-acid", with: "18"
      find_by_id("as-product").click
      eventually { (strength("active") - 24.2934).abs < 0.001 }

      assert_in_delta 59.25, strength("product"), 0.01
      assert_includes current_url, "said=acid"
      fill_in "as-ounces", with: "200"
      find_by_id("as-product").click

      assert_text "That is stronger than the product itself (128 fl oz/gal)"
      fill_in "Target strength", with: "64"
      click_link "Card for the truck"

      assert_selector ".mix-card h1", text: "Stump concentrate, 50 % of the volume"
    end

    # Three runs by stopwatch, on a phone: each is written down, the middle one counts.
    def test_a_pace_timed_with_a_thumb
      resize("phone")
      visit "/mix/calibration?way=nozzle&ml=900&spacing=50&distance=0,5"
      3.times do
        click_button "Start a run"
        sleep 0.3
        find("[data-stopwatch]").click
      end

      assert_equal 3, find_field("Runs, seconds").value.split("; ").size
      assert_text "pace, the middle run"
      assert_empty complaints
    end
  end
end
