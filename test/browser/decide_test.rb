# frozen_string_literal: true

require "support/browser"

module Thistle
  # A steward decides: one patch, its course, which patch first, the season.
  class DecideBrowserTest < BrowserTest
    def visit_bench(code) = visit("/decide?patch=#{Testing.patch(code).id}")

    # Dry soil turns pulling into waiting, and the address holds it.
    def test_the_bench_answers_as_facts_change
      visit_bench "Q-04"

      assert_selector ".verdict.go h3", text: "Pull by hand"
      choose_in "Soil", "dry"

      assert_selector ".verdict.wait h3", text: "Pull by hand"
      assert_includes current_url, "soil=dry"
      choose_in "Stems", "wrist"

      assert_selector ".verdict.no", text: /Pull by hand.*Possible.*seedlings only/m
      check "More that may differ: how much there is, what the ground is for, crew, tools, schools, footing"
      answered
      uncheck "jaw-and-lever puller"

      assert_selector ".verdict.no", text: /Pull with the lever tool.*Not at hand: jaw-and-lever puller/m
      visit current_url

      assert_selector ".verdict.no", text: /Not at hand: jaw-and-lever puller/
    end

    # Against the advice, with a reason; carried out by recording the work.
    def test_a_course_from_the_bench_to_its_first_step_done
      visit_bench "Q-05"
      find("#m-cut_stump").click_link "Course"

      assert_text "The rules put pull with the lever tool first"
      fill_in "Who decides", with: "Ada"
      click_button "Begin this course"

      assert_text "say why it is otherwise than advised"
      assert_field "Who decides", with: "Ada"
      fill_in "Reason for another method", with: "Roots under the wall"
      click_button "Begin this course"

      assert_text "Another method was chosen because: Roots under the wall"
      first(".course .treat").click_button "Done"

      assert_selector ".course .treat.done", text: "Done May 12, 2026."
      click_button "Undo"

      assert_no_selector ".course .treat.done"
    end

    # A drag of a weight re-ranks at once.
    def test_a_weight_is_dragged
      visit "/decide/first?goal=even"
      before = texts(".ranked h3")
      slide "Trees being strangled", 10
      slide "Seed about to fall", 0

      assert_selector ".ranked li:first-child h3", text: /bittersweet|Japanese honeysuckle/ # both strangle
      eventually { texts(".ranked h3") != before }
      click_button "Keep these weights"

      assert_text "These weights are kept"
      visit "/decide/first"

      assert_selector "#n-strangling", text: "10"
    end

    def test_a_season_is_solved_and_a_patch_left_out
      visit "/decide/plan"
      fill_in "Crew hours a week", with: "12"
      click_button "Solve"

      assert_text "The best that is possible, proved"
      code = first(".season-plan .row-card h3 a").text
      first(".season-plan .row-card").click_button "Leave out"

      assert_text "#{code} is left out"
      assert_no_selector ".season-plan .row-card h3", text: code
    end

    def test_a_rule_of_this_ground
      visit "/decide/rules"
      select "digging", from: "No"
      fill_in "Because", with: "Old graves"
      fill_in "Who says so", with: "Ada", match: :first
      within("#local") { fill_in "Who says so", with: "Ada" }
      click_button "Add the rule"

      assert_text "No digging"
      visit "/decide?plant=japanese_barberry&settled=yes&size=thumb&stance=any"

      assert_selector "#m-dig_crown.no", text: "Old graves (Ada)."
    end

    # A patch of mixed sizes is done by size, with totals; another school says what it would take.
    def test_a_mixed_patch_and_another_school
      visit_bench "Q-02"

      assert_selector ".combination tr", text: /40 pencil\s+Basal bark\s+from Friday/
      assert_selector ".combination .figures", text: /9\d %.*crew hours/m
      assert_selector ".other-schools tr", text: /none/
      find(".other-schools").click_link "What this ground keeps, and why"
      within("fieldset", text: "How much herbicide?") { choose "none", allow_label_click: true }
      click_button "Keep"

      assert_text "Kept. The rules follow it from now on."
      visit_bench "Q-02"

      assert_no_selector ".verdict.wait", text: "Basal bark"
    end

    # What nobody answered is asked first; the answer takes the question away.
    def test_a_question_is_asked_and_answered
      Testing.patch("Q-04").update(natives_near: nil)
      visit "/decide?patch=#{Testing.patch("Q-04").id}&stance=any"

      assert_selector ".questions", text: "Are there desirable plants in reach?"
      choose_in "Desirable plants nearby", "no"

      assert_no_selector ".questions", text: "Are there desirable plants in reach?"
    end

    # Held to what cannot be, the plan says so, and lets it go again.
    def test_a_plan_is_held_and_let_go
      visit "/decide/plan"
      fill_in "Crew hours a week", with: "20"
      click_button "Solve"
      card = first(".season-plan .row-card")
      code = card.find("h3 a").text
      card.click_button "Hold"

      assert_text(/#{code} is held by/)
      fill_in "Crew hours a week", with: "0"
      click_button "Solve"

      assert_no_text "#{code} is held"
      assert_text "0 patches"
    end

    # In the field: the answer before the questions, the course's steps before what belongs to it.
    def test_on_a_phone_the_answer_comes_first
      resize "phone"
      visit_bench "Q-04"

      assert_operator top(".verdict.go"), :<, top("form.choices")
      visit "/decide/courses/#{Store::Course.first.id}"

      assert_operator top(".next-step"), :<, top("#add-step")
      first(".course .treat").click_link "Record the work"

      assert_selector "h1", text: "Free the tree"
      assert_selector ".steps li", minimum: 3
    end

    private

    def top(selector) = evaluate_script("document.querySelector(#{selector.to_json}).getBoundingClientRect().top")

    def choose_in(legend, option)
      find("fieldset", text: legend, match: :prefer_exact).find("label", text: option, exact_text: true).click
    end

    def slide(label, value)
      slider = find_field(label)
      execute_script("arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', { bubbles: " \
                     "true }))", slider, value.to_s)
    end
  end
end
