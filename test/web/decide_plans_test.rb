# frozen_string_literal: true

require "support/web"

module Thistle
  # Courses, ranks and season plans through their pages.
  class WebDecidePlansTest < RackTest
    PLAN = { from: "2026-05-12", weeks: "20", hours: "16", goal: "stop_spread" }.freeze

    def q = Store::Property.first(prefix: "Q")

    # Chosen otherwise than advised, the reason is kept; the work that is recorded carries the course on.
    def test_a_course_is_begun_followed_changed_and_left
      id = patch("Q-05").id
      send_form :post, "/decide/courses", patch: id, method: "cut_stump", person: "Ada"

      assert_equal 422, last_response.status
      assert_includes last_response.body, "say why it is otherwise than advised"
      send_form :post, "/decide/courses", patch: id, method: "cut_stump", person: "Ada", reason: "The lever breaks here"
      course = patch("Q-05").course
      task = Store::Task.first(course_id: course.id, done_on: nil)

      assert_equal ["lever_pull", "treat", course.steps.find { |s| s.kind == "treat" }.due_on],
                   [course.advised_key, task.kind, task.due_on]
      Store::Treatment.record(course.patch, q.site(Testing::TODAY), done_on: Testing::TODAY, method_key: "cut_stump")

      assert_equal Testing::TODAY, course.refresh.steps.find { |s| s.kind == "treat" }.done_on
      assert_equal 2027, Store::Task.first(course_id: course.id, done_on: nil).due_on.year
      follow_through course
    end

    # The same words on the page, on the patch, in the timeline and as JSON.
    def test_a_course_is_found_everywhere
      course = patch("B-02").course
      plan = json("/decide/courses/new.json?patch=#{patch("Q-05").id}&method=cut_stump")

      assert_equal ["2026-05-15", "lever_pull", 2], plan.values_at("begins_on", "advised", "years")
      assert_equal %w[treat disposal check check treat check replant check close], plan["steps"].map { |step|
        step["kind"]
      }
      get "/survey/patches/#{course.patch_id}"

      assert_includes last_response.body, %(href="/decide/courses/#{course.id}")
      get "/records"

      assert_includes last_response.body, "Advised was pull by hand: The Trans want the oaks free"
      get "/decide/courses"

      assert_includes last_response.body, "B-02, Oriental bittersweet"
      assert_equal [course.id], json("/decide/courses.json")["courses"].map { |one| one["id"] }
    end

    def test_what_never_goes_has_no_course
      send_form :post, "/decide/courses", patch: patch("Q-05").id, method: "cut_only", person: "Ada", reason: "Quick"

      assert_equal 422, last_response.status
      assert_nil patch("Q-05").course
    end

    def test_the_rank_follows_the_weights_of_the_address
      first = ->(query) { json("/decide/first.json?at=#{q.id}&#{query}")["patches"].first["patch"] }

      refute_equal first["w[seed]=10"], first["w[strangling]=10"]
      assert_equal "Q-15", first["w[strangling]=10&w[seed]=1"]
      get "/decide/first?w[seed]=0"

      assert_includes last_response.body, "Every weight is zero"
      send_form :post, "/decide/first", at: q.id, w: { strangling: 10, seed: 1 }

      assert_equal "Q-15", first[""]
    end

    def test_a_season_is_solved_asked_again_and_refused_in_words
      send_form :post, "/decide/plan", at: q.id, **PLAN
      answer = json("/decide/plan.json")["answer"]
      held = answer["items"].first

      assert(answer["items"].any? { |item| item["stands"].to_s.include?("as mapped on") }, "what it was planned for")

      assert_operator answer["gain"], :>=, answer["greedy_gain"]
      answer["items"].group_by { |item| item["week"] }
                     .each_value { |items| assert_operator items.sum { |item| item["hours"] }, :<=, 16.001 }
      send_form :post, "/decide/plan/#{Store::SeasonPlan.last.id}/again", patch: held["patch"], wish: "ban"

      refute_includes json("/decide/plan.json")["answer"]["items"].map { |item| item["code"] }, held["code"]
      send_form :post, "/decide/plan", at: q.id, **PLAN, weeks: "99", other: "soon 3", budget: "much"

      assert_said "must be less than or equal to 52", "have a line that cannot be read", "must be a float", "soon 3"
    end

    # Nobody licensed, no herbicide in the plan; a plan that is held to the impossible says which limit clashes.
    def test_a_plan_keeps_the_licence_and_says_what_clashes
      send_form :post, "/decide/plan", at: q.id, **PLAN, licensed_from: "2027-01-01", licensed_to: "2027-02-01"
      items = json("/decide/plan.json")["answer"]["items"]
      methods = items.map { |item| Core::Knowledge.shipped.removal(item["method"]) }

      assert_empty methods.select(&:herbicide?)
      send_form :post, "/decide/plan", at: q.id, **PLAN, hours: "0"
      send_form :post, "/decide/plan/#{Store::SeasonPlan.last.id}/again", patch: patch("Q-07").id, wish: "pin"
      get "/decide/plan"

      assert_includes last_response.body,
                      "Q-07 is fixed to a week in which its method is not allowed"
    end

    # What is planned for this week stands on Today until it is worked on, and in the calendar.
    def test_a_plan_reaches_today_and_the_calendar
      send_form :post, "/decide/plan", at: q.id, **PLAN
      first = json("/.json")["planned"].first
      get "/season/calendar.ics?at=#{q.id}"

      assert_includes last_response.body,
                      "#{first["code"]}: #{Core::Knowledge.shipped.removal(first["method"]).name.downcase}"
      get "/"

      assert_includes last_response.body, "Planned for this week"
      Store::Treatment.record(patch(first["code"]), q.site(Testing::TODAY), done_on: Testing::TODAY,
                              method_key: first["method"], crew_size: 3, hours: 2)

      refute_includes json("/.json")["planned"].map { |item| item["code"] }, first["code"]
    end

    def test_only_patches_of_the_property_are_held
      send_form :post, "/decide/plan", at: q.id, **PLAN
      send_form :post, "/decide/plan/#{Store::SeasonPlan.last.id}/again", patch: patch("P-04").id, wish: "pin"

      assert_equal 404, last_response.status
    end

    # A season that runs over New Year has work on both sides of it.
    def test_a_plan_over_new_year
      send_form :post, "/decide/plan", at: q.id, **PLAN, from: "2026-11-02", weeks: "30", hours: "3"
      answer = json("/decide/plan.json")["answer"]

      year = ->(week) { Date.iso8601(answer["weeks"][week]).year }
      open = ->(item) { answer["windows"].fetch(item["patch"].to_s).include?(answer["weeks"].index(item["week"])) }

      assert_equal [2026, 2027], answer["windows"].values.flatten.map(&year).uniq.sort
      assert(answer["items"].all?(&open))
    end

    # A large plan is solved beside the page, which says how far it is; one that a stop cut short says so.
    def test_a_long_solve_shows_progress
      plan = Store::SeasonPlan.create(property_id: q.id,
                                      asked: JSON.generate(PLAN.merge(other: {}, weights: {}, pins: [], bans: [])))
      Store::Job.create(kind: "plan", subject_id: plan.id, pid: Process.pid, token: "t", boot: Store::Job.boot,
                        beat: Store::Job.clock, begun: Store::Job.clock)
      get "/decide/plan"

      assert_includes last_response.body, "<progress"
      Store::SeasonPlan.recover(all: true)
      get "/decide/plan/#{plan.id}/progress"

      assert_equal "true", last_response.headers["hx-refresh"]
      get "/decide/plan"

      assert_includes last_response.body, "The server stopped while it was solved"
    end

    def test_work_that_was_cut_off_says_so_and_can_be_asked_for_again
      post "/survey/arrivals", authenticity_token: @token, file: upload("code,lat,lon\nZ-1,38.0012,-91.4\n", "one.csv")
      arrival = Store::Arrival.order(:id).last
      arrival.update(status: "looking")
      Store::Job.create(kind: "arrival", subject_id: arrival.id, pid: 4_194_304, token: "t", boot: Store::Job.boot,
                        beat: Store::Job.clock)
      Web::Daybreak.recover

      assert_equal ["failed", Store::Job::LOST], arrival.refresh.values.values_at(:status, :fault)
      assert_includes get("/survey/arrivals/#{arrival.id}").body, "The server stopped before it was done"
      assert_equal 303, send_form(:post, "/survey/arrivals/#{arrival.id}/take").status
      wait_for { arrival.refresh.status == "taken" }
    end

    def test_a_wish_that_is_none_is_refused_and_spoils_nothing
      plan = Store::SeasonPlan.create(property_id: patch("Q-06").property_id, status: "failed", fault: "x",
                                      asked: JSON.generate(from: "2026-05-12", weeks: 8, hours: 8, other: {},
                                                           weights: {}, pins: [], bans: [], goal: "even"))
      [[:week, "soon"], [:week, "a" * 400], [:method, "sorcery"]].each do |field, value|
        send_form :post, "/decide/plan/#{plan.id}/again", patch: patch("Q-06").id, wish: "pin", field => value

        assert_equal [422, 200], [last_response.status, get("/decide/plan").status]
      end
    end

    private

    def follow_through(course)
      step = course.refresh.open_steps.first
      send_form :post, "/decide/steps/#{step.id}", due_on: "2027-06-01", text: "Look with the school class"

      assert_equal [Date.new(2027, 6, 1), "own_records"], step.refresh.values.values_at(:due_on, :source)
      send_form :post, "/decide/steps/#{step.id}", due_on: "soon", text: "x"

      assert_includes last_response.body, 'value="soon"'
      send_form :post, "/decide/steps/#{step.id}/done"
      send_form :post, "/decide/courses/#{course.id}/steps", due_on: "2028-01-05", text: "Prune the oak", kind: "check"

      assert_equal [Testing::TODAY, "Prune the oak"],
                   [step.refresh.done_on, course.refresh.steps.find { |s| s.due_on == Date.new(2028, 1, 5) }.text]
      send_form :post, "/decide/courses/#{course.id}/leave"

      assert_nil course.patch.refresh.course
      assert_empty Store::Task.where(course_id: course.id, done_on: nil)
    end
  end
end
