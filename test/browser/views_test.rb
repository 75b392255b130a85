# frozen_string_literal: true

require "support/browser"

module Thistle
  # Every main view at both sizes: no WCAG 2.2 AA violation by axe-core, nothing wider than the screen,
  # nothing that the strict policy had to stop.
  class ViewsTest < BrowserTest
    VIEWS = ["/", "/identify?c[habit]=shrub&c[pith]=hollow", "/identify", "/identify/plants/giant_hogweed",
             "/identify/reports", "/identify/practice", "/identify/practice?kind=method&next=1",
             "/identify/duel/caltrop/warty_caltrop",
             "/survey", "/survey/walk", "/survey/searches", "/survey/zones", "/survey/layers", "/survey/files",
             "/survey/totals", "/survey/site-map", "/survey/here?patch=5",
             "/survey/patches/%{patch}", "/season", "/season/fit?work=foliar", "/season/weather", "/season/calendar",
             "/season/pit?ball=yes&ribbon=short",
             "/decide?patch=%{patch}", "/decide?patch=%{mixed}&more=1&licensed=no", "/decide/first", "/decide/plan",
             "/decide/courses",
             "/decide/courses/new?patch=%{patch}&method=cut_stump", "/decide/schools", "/decide/schools?patch=%{patch}",
             "/decide/rules", "/decide/methods", "/decide/methods/cut_stump", "/mix?patch=%{patch}",
             "/mix", "/mix?vessel=tank&product=1&second=triclopyr_tea&hardness=300",
             "/mix/shelf", "/mix/shelf/1", "/mix/shelf/new", "/mix/records", "/mix/card?product=1&stems=40",
             "/mix/calibration?way=nozzle&ml=900&spacing=50&runs=20",
             "/mix/other-end?product_poured=1&carrier_poured=1",
             "/work", "/work?patch=%{patch}&method=cut_stump", "/work/days", "/work/days/new", "/work/days/1",
             "/work/days/1/brief", "/work/days/1/field", "/work/days/1/field/%{stop}", "/work/days/1/after",
             "/work/people", "/work/people/1", "/work/kit", "/work/haul?stems_wrist=20&area=100&depths=10%%204",
             "/work/water?depth=1&clarity=2", "/recheck", "/recheck/patches/%{patch}", "/recheck/learned",
             "/recheck/patches/%{patch}/outlook", "/recheck/skip", "/recheck/quiet", "/recheck/trials",
             "/recheck/trials/new?patch=%{patch}", "/recheck/review?year=2025",
             "/recheck/patches/%{patch}/life", "/recheck/patches/%{patch}/origin",
             "/replant", "/replant?patch=%{patch}", "/replant/first?patch=%{patch}",
             "/replant/mix?patch=%{patch}&area=120&kind=plugs", "/replant/plans/1",
             "/replant/plans/1/when", "/replant/plans/1/take", "/replant/seed", "/replant/gather",
             "/replant/spacing",
             "/records", "/records/lists/patches", "/records/lists/treatments", "/records/check/2",
             "/records/treatment/7", "/records/observation/7",
             "/pocket", "/pocket/record",
             "/records/reports", "/records/bundles", "/records/reports/season", "/records/reports/plans/1",
             "/records/reports/authority",
             "/records/reports/notice?plant=garlic_mustard", "/records/reports/hours?person=1",
             "/records/properties/new", "/find?q=mil", "/glossary"].freeze
    AXE = Axe::Configuration.instance.jslib
    TAGS = { type: "tag", values: %w[wcag2a wcag2aa wcag21a wcag21aa wcag22aa] }.freeze
    # What a narrow screen may change; the rest says the same at any size. Colours of field views are looked at below.
    NARROW = { type: "rule", values: %w[target-size scrollable-region-focusable meta-viewport
                                        link-in-text-block aria-hidden-focus nested-interactive label
                                        select-name button-name link-name svg-img-alt] }.freeze
    ASKED = { "desk" => TAGS, "phone" => NARROW }.freeze

    Browser::SIZES.each_key do |size|
      define_method("test_views_#{size}") do
        resize size
        patch, mixed = %w[Q-05 Q-02].map { |code| Testing.patch(code).id }
        stop = Store::WorkDay.first.answered[:walk].first
        Testing.planting_plan("Q-05")
        faults = VIEWS.flat_map do |view|
          visit format(view, patch:, mixed:, stop:)
          settle
          [*axe(view, ASKED.fetch(size)), *overflow(view), *complaints.map { |text| "#{view}: #{text}" }]
        end

        assert_empty faults, faults.join("\n")
      end
    end

    # DESIGN.md section 4: in field views 7 : 1 and targets of at least 44 px.
    def test_field_views_can_be_read_and_hit_outdoors
      resize "phone"
      views = ["/", "/decide?patch=%{patch}", "/recheck", "/recheck/patches/%{patch}", "/work?patch=%{patch}",
               "/survey", "/survey/walk", "/season/fit", "/work/days/1/field", "/work/days/1/field/%{stop}"]
      faults = views.flat_map do |view|
        visit format(view, patch: Testing.patch("Q-05").id, stop: Store::WorkDay.first.answered[:walk].first)
        settle
        [*axe(view, { type: "rule", values: ["color-contrast-enhanced"] }), *small_targets(view)]
      end

      assert_empty faults, faults.join("\n")
    end

    def test_keys_and_undo
      visit "/"
      find("body").send_keys("?")

      assert_selector "dialog#keys", text: "the pages, in the order of the menu"
      click_button "Close"
      find("body").send_keys("n")

      assert_selector "#patch-form[open]"
      visit "/survey/patches/#{Testing.patch("Q-09").id}"
      click_button "Take Q-09 off the map"

      assert_text "Q-09 was taken off the map"
      click_button "Undo"

      assert_text "Undone: Q-09 taken off the map"
    end

    # A crossed outline: say where, keep the drawing, offer the repaired shape.
    def test_a_crossed_drawing_is_repaired
      visit "/survey"
      draw_area [20, -120], [100, -60], [100, -120], [20, -60]

      assert_selector ".measure", text: "crosses itself near"
      click_button "Use the repaired shape"

      assert_selector ".measure", text: "gross area"
    end

    private

    def settle
      assert_selector "main"
      assert_selector "#map[data-ready]" if page.has_css?("#map", wait: 0)
    end

    def small_targets(view)
      patiently { evaluate_script(<<~JS) }.map { |text| "#{view}: too small: #{text}" }
        [...document.querySelectorAll('button, .btn, summary, .choice-row label, .covers-drawn label, .rooms a')]
          .filter((at) => at.checkVisibility() && at.getBoundingClientRect().height < 43.5)
          .map((at) => `${at.outerHTML.slice(0, 80)} ${at.getBoundingClientRect().height}`)
      JS
    end

    # What axe-core finds, asked in the page itself: a third of the time of a window of its own for each question.
    def axe(view, only)
      execute_script(AXE)
      found = patiently { evaluate_async_script(<<~JS, only) }
        const [only, done] = arguments;
        axe.run(document, { runOnly: only, resultTypes: ['violations'] }).then(
          (said) => done(said.violations.map((fault) => [fault.id, ...fault.nodes.slice(0, 2).map((node) => node.html)])),
          (fault) => done([[`${fault}`]]));
      JS
      found.map { |fault, *places| "#{view}: #{fault}: #{places.join(" | ")}" }
    end

    def overflow(view)
      wide = patiently do
        evaluate_script("document.documentElement.scrollWidth - document.documentElement.clientWidth")
      end
      wide > 1 ? ["#{view}: #{wide} px wider than the screen"] : []
    end
  end
end
