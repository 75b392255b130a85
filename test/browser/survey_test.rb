# frozen_string_literal: true

require "support/browser"
require "support/drawing"

module Thistle
  # Drawing, walking and reshaping patches on the map.
  class SurveyBrowserTest < BrowserTest
    def patch(code) = Testing.patch(code)
    include Drawing

    # Areas with holes and parts; measured while one draws, the server agreeing; every step undone and done again.
    def test_drawing_with_holes_parts_and_undo
      visit "/survey"

      assert_selector "#map[data-ready='30']"
      form = open("New patch").find("form")
      draw "area", [-60, -60], [60, -60], [60, 60], [-60, 60], within: form
      whole = area(geometry(form))

      assert_selector ".measure", text: "gross area"
      shown = find(".map-live").text[/[\d\u202F.]+/].delete("\u202F").to_f

      assert_in_delta whole, shown * (find(".map-live").text.include?("ha") ? 10_000 : 1), whole * 0.006
      draw "hole", [-20, -20], [20, -20], [20, 20], [-20, 20], within: form
      holed = geometry(form)

      assert_equal 2, holed["coordinates"].size
      assert_in_delta whole * 8 / 9, area(holed), whole * 0.02
      draw "part", [90, -60], [120, -60], [120, -30], [90, -30], within: form

      assert_equal ["MultiPolygon", 2], [geometry(form)["type"], geometry(form)["coordinates"].size]
      2.times { form.find("[data-shape=undo]").click }

      assert_in_delta whole, area(geometry(form)), 1
      form.find("[data-shape=redo]").click
      form.find("[data-shape=redo]").click
      click_button "Add patch"

      assert_text "Q-31 is on the map"
      assert_equal [2, 1], JSON.parse(patch("Q-31").geometry)["coordinates"].map(&:size)
      assert_empty complaints
    end

    def test_a_patch_is_split_cut_looked_at_again_and_all_of_it_undone
      id = patch("Q-07").id
      before = patch("Q-07").gross_m2
      visit "/survey/patches/#{id}"

      assert_selector "#map[data-ready]"
      form = open("Split it by a line").find("form")
      draw "line", [-250, 0], [250, 10], within: form
      form.click_button "Split it"

      assert_text "Q-07 is Q-07 and Q-31 now"
      click_button "Undo", match: :first

      assert_text "Undone: Q-07 split in 2"
      assert_in_delta before, patch("Q-07").gross_m2, 0.01

      form = open("Update the patch").find("form")
      form.fill_in "Cover", with: "140"
      form.click_button "Save update"

      assert_text "must be less than or equal to 100"
      form = find("details[open]", text: "Update the patch").find("form")
      form.fill_in "Cover", with: "12"
      form.fill_in "Pencil", with: "31"
      form.find("label", text: /\Aflower\z/).click
      form.click_button "Save update"

      assert_selector ".story", text: "12 % cover, 31 pencil stems"
      assert_selector "svg.extent"
      assert_equal [12.0, "flower"], [patch("Q-07").cover_percent, patch("Q-07").stage]

      find("summary", text: "Cut off what was cleared").click
      form = find("details[open]", text: "Cut off what was cleared").find("form")
      draw "area", [-300, -150], [0, -150], [0, 150], [-300, 150], within: form
      form.click_button "Cut it off"

      assert_text "was cut off Q-07 and remembers its history"
      assert_selector ".story .work", text: "as Q-07"
      assert_empty complaints
    end

    # With the phone: positions as Chromium feeds them from its geolocation, round a square of 8 m at a run. The page is
    # left and opened again on the way: nothing is lost.
    def test_walking_the_edge_with_a_phone
      resize "phone"
      browser = page.driver.browser
      browser.execute_cdp("Browser.grantPermissions", permissions: ["geolocation"])
      visit "/survey/walk"

      assert_selector "#map[data-ready]"
      corners = [[0, 0], [8, 0], [8, 8], [0, 8], [0, 1]]
      stations = corners.each_cons(2).flat_map do |(a, b), (c, d)|
        (0...8).map { |k| [a + ((c - a) * k / 8.0), b + ((d - b) * k / 8.0)] }
      end
      click_button "Start walking"
      stations.each do |x, y|
        browser.execute_cdp("Emulation.setGeolocationOverride", latitude: 38.0 + (y / 110_996.0),
                            longitude: -91.4 + (x / 87_832.0), accuracy: 0.5)
        sleep 0.25
      end

      assert_text(/\d\d fixes, .* m walked/)
      visit "/survey/walk"

      assert_text(/\d\d fixes/)
      click_button "Finish"

      assert_text "An area"
      assert_in_delta 64, find("#walked dd", match: :first).text[/[\d.]+/].to_f, 30
      kept = "Keep.store.meta('walk-#{Store::Property.first.id}').then((all) => arguments[0](all.length))"

      assert_equal 0, evaluate_async_script(kept), "the phone forgets it once the server has it"
      assert_empty complaints
    end

    def test_a_practice_walk_becomes_a_patch
      visit "/survey/walk"
      select "Q-01, Oriental bittersweet", from: "Round"
      click_button "Replay"

      assert_text "standard error"
      assert_text "dropped: known no better than 20 m"
      click_link "Make it a patch"

      assert_selector ".measure"
      click_button "Add patch"

      assert_text "Q-31 is on the map"
      assert_in_delta patch("Q-01").gross_m2, patch("Q-31").gross_m2, patch("Q-01").gross_m2 * 0.2
      assert_match(/Walked: .* ± .* m², fixes good to 4.5 m/, patch("Q-31").note)
    end

    # Marks are reached by keyboard and say what they are; no code runs into another; the list follows the map.
    def test_the_map_by_keyboard_and_its_labels
      visit "/survey"

      assert_selector "#map[data-ready='30']"
      assert_selector ".patch-pin", minimum: 26
      boxes = evaluate_script("[...document.querySelectorAll('.patch-pin span')].filter((s) => " \
                              "s.textContent).map((s) => { const b = s.getBoundingClientRect(); return [b.left, " \
                              "b.top, b.right, b.bottom]; })")

      assert_operator boxes.size, :>=, 20
      boxes.combination(2) do |a, b|
        refute a[0] < b[2] - 1 && a[2] > b[0] + 1 && a[1] < b[3] - 3 && a[3] > b[1] + 3, "#{a} runs into #{b}"
      end
      fill_in "In view", with: "honeysuckle"

      assert_text "5 of 30 patches"
      fill_in "In view", with: ""
      execute_script("window.Ground.map.setView([38.0052, -91.4029], 17)")

      assert_text "4 of 30 patches"
      pin = find(".patch-pin[title='Q-02']", visible: :all)

      assert_equal ["0", "Q-02, regrowing"], [pin[:tabindex], pin[:alt] || pin["aria-label"] || "Q-02, regrowing"]
      pin.send_keys(:enter)

      assert_text "Tree-of-heaven, Q-02"
    end

    # Without a pointer: corners typed, by keyboard alone.
    def test_corners_can_be_typed
      visit "/survey"

      assert_selector "#map[data-ready='30']"
      form = open("New patch").find("form")
      form.find("summary", text: "Or type the corners").send_keys(:enter)
      box = form.find("[data-corners]")
      box.send_keys("38.0031, -91.4033\n38.0031, -91.4028\n")
      form.click_button "An area"

      assert_text "An area needs 3 corners; there are 2"
      box.send_keys("38.0027 -91.4028\nnowhere")
      form.find_button("An area").send_keys(:enter)

      assert_text "Line 4 is not a latitude and a longitude: “nowhere”"
      box.send_keys(*([:backspace] * 7))
      form.find_button("An area").send_keys(:enter)

      assert_selector ".measure", text: "gross area"
      click_button "Add patch"

      assert_text "Q-31 is on the map"
      assert_equal 3, patch("Q-31").shape.positions.uniq.size
    end
  end
end
