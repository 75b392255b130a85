# frozen_string_literal: true

require "support/browser"

module Thistle
  # One season of one patch with the keyboard alone: Tab, Enter, Space and letters.
  class KeyboardTest < BrowserTest
    STEPS = 400 # presses of Tab until something is said to be out of reach
    FOCUS = <<~JS
      const at = document.activeElement, label = at.labels?.[0] || at.closest("label");
      const box = at.getBoundingClientRect();
      return [at.tagName, at.type || "", (label || at).innerText.trim(), at.name || "", box.width > 0 || !!label];
    JS

    def test_a_season_by_keyboard
      visit "/"
      map_a_patch
      name_it
      record_work
      check_it
      patch = Testing.patch("Q-31")

      assert_equal ["amur_honeysuckle", "regrowing", 1, 1],
                   [patch.plant_key, patch.state, patch.treatments.size, patch.checks.size]
      assert_text "Treat again: 3 resprouts"
    end

    private

    def map_a_patch
      press "n"
      assert_selector "#patch-form[open]"
      reach(/\AOr type the corners/).then { press :enter }
      corners = ["38.0010, -91.4030", "38.0010, -91.4020", "38.0016, -91.4020"]
      reach(/\ALatitude, longitude/).then { press(*corners.flat_map { |corner| [corner, :enter] }) }
      reach(/\AAn area\z/).then { press :enter }
      assert_selector ".measure", text: "gross area"
      reach(/\AStems on these plants/).then { press "60" }
      reach(/\AAdd patch\z/).then { press :enter }
      assert_text "Q-31 is on the map"
    end

    def name_it
      reach(/\AName it\z/).then { press :enter }
      assert_selector "details.name-it"
      reach(/\ASure of the name/).then { press :enter }
      reach(/\APlant\b/).then { press "Amur honeysuckle" }
      reach(/\ANamed by/).then { press "R. Lindqvist" }
      reach(/\AName Q-31\z/).then { press :enter }
      assert_text "Q-31 is named: Amur honeysuckle."
    end

    def record_work
      reach(/\ADecide\z/).then { press :enter }
      assert_selector "article.verdict.go"
      reach(/\AWork\b/, after: "article.verdict.go").then { press :enter }
      assert_text "Record what was done"
      reach(/\APeople\b/).then { press "4" }
      reach(/\AHours each/).then { press "2" }
      reach(/\AStems done/).then { press "60" }
      reach(/\AKeep this record/).then { press :enter }
      assert_text "Work recorded"
    end

    def check_it
      reach(/\ACheck\b/).then { press :enter }
      assert_button "Keep this check"
      reach(/\AResprouts|\AStubs alive/).then { press [:control, "a"], "3" }
      reach(/\AKeep this check/).then { press :enter }
      assert_text "Treat again"
    end

    # Tabs on until what has the keyboard is called so; it can be seen, and has a ring around it.
    def reach(words, after: nil)
      execute_script("document.querySelector(arguments[0]).querySelector('a, summary').focus()", after) if after
      STEPS.times do
        press :tab
        tag, _, said, _, shown = evaluate_script("(() => {#{FOCUS}})()")
        next unless said.match?(words) && tag != "BODY"

        assert shown, "#{said} has the keyboard and is not seen"
        assert_predicate self, :ring?, "#{said} has the keyboard and no ring"
        return true
      end
      flunk "#{words.source} cannot be reached by Tab on #{current_path}"
    end

    def ring?
      evaluate_script(<<~JS)
        (() => {
          const at = document.activeElement, near = at.labels?.[0] || at;
          return [at, near, at.nextElementSibling].filter(Boolean).some((one) => {
            const look = getComputedStyle(one);
            return (look.outlineStyle !== 'none' && parseFloat(look.outlineWidth) > 0) || look.boxShadow !== 'none';
          });
        })()
      JS
    end

    def press(*keys) = page.driver.browser.action.tap { |hands| keys.each { |key| strike(hands, key) } }.perform

    def strike(hands, key)
      return hands.send_keys(key) unless key.is_a?(Array)

      hands.key_down(key.first).send_keys(key.last).key_up(key.first)
    end
  end
end
