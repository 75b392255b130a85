# frozen_string_literal: true

require "support/browser"

module Thistle
  # One plant the whole way, by clicking alone: what is it, where, what to do, how much of what, the work,
  # the return, what goes back, and Today.
  class WalkTest < BrowserTest
    def test_one_patch_from_what_is_it_to_what_goes_back
      visit "/"
      draw_a_patch
      settle_its_name
      decide
      mix
      record_the_work
      recheck
      replant
      today

      assert_empty complaints
    end

    private

    # Opens the group that a character is in, unless it is the suggested look; picks a state and waits for the answer.
    def choose_glyph(character, words)
      look = find("#look-#{character}", visible: :all)
      look.find(:xpath, "./ancestor::details[1]/summary").click unless look.visible?
      within("#look-#{character}") { find("label.glyph-card", text: /\A#{words}/).click }

      assert_selector ".answered", text: words
    end

    def pick(legend, words)
      field = find("fieldset", text: /\A#{legend}/)
      field.find("label", text: /\A#{words}\z/).click
    end

    def draw_a_patch
      find("body").send_keys("2")
      draw_area [20, -120], [100, -120], [100, -60], [20, -60]

      assert_selector ".measure", text: "gross area"
      assert_selector ".measure", text: "to water"
      fill_in "Stems on these plants", with: "60"
      pick "Stems mostly", "wrist"
      pick "Cover", "25–50 %"
      pick "Light", "part shade"
      pick "Desirable plants nearby", "yes"
      click_button "Add patch"

      assert_text "Q-31 is on the map"
      @patch = Testing.patch("Q-31")

      assert_in_delta Core::Survey::Geodesic.area(JSON.parse(@patch.geometry)["coordinates"].first), @patch.gross_m2,
                      1e-6
      assert_text "infested, estimated"
    end

    def settle_its_name
      click_link "Name it"
      choose_glyph "habit", "shrub"
      choose_glyph "leaf_arrangement", "opposite"
      choose_glyph "leaf_margin", "smooth"
      choose_glyph "bark", "shaggy strips"

      assert_text "Not settled yet"
      assert_text "Cut twig tells it from American fly honeysuckle"
      visit "#{current_path}/duel/amur_honeysuckle/coralberry"

      assert_selector "tr.deciding", text: "Cut twig"
      page.go_back
      choose_glyph "pith", "hollow"
      choose_glyph "leaf_tip", "long drawn out"
      choose_glyph "flower_stalk", "short"
      choose_glyph "flower_colour", "white"
      choose_glyph "flower_cluster", "along the stem"
      choose_glyph "leaf_shape", "drawn to a point"

      assert_text "Settled: Amur honeysuckle"
      click_button "Settle Q-31 as Amur honeysuckle"

      assert_text "Settled: Amur honeysuckle."
      assert_equal "standing", @patch.reload.state
    end

    def verdict(name) = find("article.verdict", text: /\A#{name}/)

    def decide
      click_link "Decide", href: "/decide?patch=#{@patch.id}"

      assert_selector "article.verdict.wait", text: "Cut low and paint the ring"
      verdict("Cut low and paint the ring").find("summary").click

      assert_text "sap rise"
      assert_selector "article.verdict.go", text: "Pull with the lever tool"
      pick "Soil", "dry"

      assert_selector "article.verdict.go", text: "Dry soil holds on: the lever serves"
      pick "Licensed person", "no"

      assert_selector "article.verdict.no", text: "Cut low and paint the ring"
      pick "Soil", "moist"
      pick "Licensed person", "yes"

      assert_selector "article.verdict.go", text: "Pull with the lever tool"
      fill_in "On", with: Date.new(2026, 10, 20)

      assert_selector "article.verdict.go", text: "Cut low and paint the ring"
      assert_includes current_url, "date=2026-10-20"
    end

    def mix
      verdict("Cut low and paint the ring").click_link("Mix")

      assert_selector "#mixed", text: "90 mL"
      fill_in "Target strength", with: "50"

      assert_text "stronger than the product itself (41 % active)"
      fill_in "Target strength", with: "20.5"

      assert_selector ".stock", text: "90 mL"
      assert_selector ".working", text: "60 stems × 3 mL"
      assert_text "The product's label is the law"
      click_link "Take it to the work record"
    end

    def record_the_work
      assert_text "Wait until May 15"
      assert_field "Stock used", with: "90"
      fill_in "People", with: "3"
      fill_in "Hours each", with: "2"

      assert_field "Stems done", with: "", placeholder: "about 60"
      fill_in "Stems done", with: "60"
      click_button "Keep this record"

      assert_text "Applicator is needed"
      assert_field "Hours each", with: "2"
      fill_in "Applicator", with: "M. Oakes"
      fill_in "Who", with: "M. Oakes and two volunteers"
      click_button "Keep this record"

      assert_text "Work recorded"
      assert_equal "hit", @patch.reload.state
      assert_text "stump resprouts and suckers"
      assert_selector ".story .work", text: "wind 10 km/h"
    end

    def recheck
      click_link "Check", href: "/recheck/patches/#{@patch.id}"
      resize "phone"
      4.times { click_button "One more, Stubs alive" }

      assert_selector "#control", text: "93 % of stubs dead"
      assert_selector "#control", text: "Next: treat 4 again"
      click_button "Keep this check"

      assert_text "Q-31 is regrowing"
      resize "desk"

      assert_text "93 % of stems dead"
      assert_text "Treat again: 4 resprouts"
    end

    def replant
      click_link "Replant", href: "/replant?patch=#{@patch.id}"

      find("article.native", text: "Spicebush").find("label.take").click

      assert_selector "article.native.taken", text: "Spicebush"
      click_button "Put a mix together"
      pick "Of", "shrubs and trees"
      fill_in "Area", with: "100"

      assert_selector ".mix-table tr", text: "Spicebush"
      click_button "Make it the plan"

      assert_text "The plan is on the record"
      assert_selector "svg.bed path"
      move_a_plant
    end

    # A plant is taken by the mouse and put two metres east; the drawing comes back with it there.
    def move_a_plant
      plan = Store::PlantingPlan.order(:id).last
      x, y, = plan.laid_out[:plants].first
      execute_script("document.querySelector('svg.bed').scrollIntoView({ block: 'center' })")
      from, to = [[x, y], [x + 2, y]].map { |place| on_screen(*place) }
      page.driver.browser.action.move_to_location(*from).click_and_hold.move_to_location(*to).perform
      sleep 0.5 # the plan behind the picture is asked for while the button is down
      page.driver.browser.action.move_by(1, 0).release.perform
      eventually { (plan.refresh.laid_out[:plants].first[0] - x - 2).abs < 0.6 }
    end

    # Where a place of the bed is in the window.
    def on_screen(x, y)
      evaluate_script(<<~JS).map(&:round)
        (() => { const svg = document.querySelector('svg.bed');
          const at = new DOMPoint(#{x} - svg.dataset.west, svg.dataset.north - #{y}).matrixTransform(svg.getScreenCTM());
          return [at.x, at.y]; })()
      JS
    end

    def today
      find("body").send_keys("0")

      assert_text "Today's work"
      assert_text "Treat again: 4 stems by the check of May 12, 2026"
    end
  end
end
