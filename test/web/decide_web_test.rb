# frozen_string_literal: true

require "support/web"

module Thistle
  # Decide's pages: the bench's address, schools, the rule book, courses, the rank, the season plan.
  class DecideWebTest < RackTest
    PLAN = { from: "2026-05-12", weeks: "20", hours: "16", goal: "stop_spread" }.freeze

    def q = Store::Property.first(prefix: "Q")

    def verdict(code, method, query = "")
      json("/decide.json?patch=#{patch(code).id}&#{query}")["verdicts"].find { |v| v["method"] == method }
    end

    def test_every_answer_carries_its_figures_its_safety_and_what_would_change_it
      wait = verdict("Q-05", "cut_stump")
      no = verdict("Q-05", "cut_stump", "licensed=no&size=wrist&date=2026-10-20")

      assert_equal [1, 2], [wait["mix_l"] <=> 0.0, wait["passes"]]
      assert_operator wait["crew_hours_range"]["low"], :<, wait["crew_hours_range"]["high"]
      assert_equal [["a licensed person on site"]], no["would_go"].map { |way| way["words"] }
      assert_includes no["safety"]["who"].first, "allows to apply herbicide"
      get "/decide?patch=#{patch("Q-05").id}&licensed=no&size=wrist&date=2026-10-20"

      assert_match(%r{Would go</b> with a licensed person on site}, last_response.body)
    end

    def test_crew_tools_and_a_measured_stem_are_read_or_refused_in_words
      assert_equal "no", verdict("Q-04", "hand_pull", "crew=0")["verdict"]
      assert_equal "no", verdict("Q-04", "hand_pull", "tools[]=")["verdict"]
      assert_equal "go", verdict("Q-04", "hand_pull", "tools[]=&tools[]=gloves")["verdict"]
      get "/decide?patch=#{patch("Q-04").id}&crew=many&stem_width=-3&more=1"

      ["How many people: a whole number", "A stem is wider than nothing", 'value="many"', 'value="-3"'].each { |text| assert_includes last_response.body, text }
      get "/decide?patch=#{patch("Q-04").id}&size=seedling&stem_width=20"

      assert_includes last_response.body, "is no seedling: it is wider than a wrist"
      patch("Q-04").update(footing: "paving")

      assert_equal "no", verdict("Q-04", "hand_pull")["verdict"]
      get "/decide?tools=hammer&s[seed_bank]=moon&slope[]=up"

      assert_equal 200, last_response.status
    end

    def test_an_unsettled_patch_and_an_imagined_one
      undone = json("/decide.json?patch=#{patch("Q-03").id}")["verdicts"].select { |v| v["verdict"] == "go" }.map { |v| v["method"] }

      assert_empty undone - %w[report_only tag_and_return seed_collect]
      get "/decide?patch=#{patch("Q-11").id}"

      assert_equal 200, last_response.status
      imagined = ->(query) do
        json("/decide.json?plant=amur_honeysuckle&settled=yes&size=wrist&date=2026-10-20&#{query}")["verdicts"].find { |v| v["method"] == "cut_stump" }
      end

      assert_equal [["no", 1.33], ["go", 6.67]],
                   ["", "water=200&stems=100"].map { |query| imagined[query].values_at("verdict", "crew_hours") }
      get "/decide?plant=amur_honeysuckle&stems=-4&area=lots&water=near"

      ["How many stems", "How much ground", "How far the water is", 'value="lots"'].each { |text| assert_includes last_response.body, text }
    end

    # What only holds a plant down is a go when that is asked, with the next date and no kill; hours follow plants, mix
    # follows stems.
    def test_held_down_and_plants_apart_from_stems
      thistle = "/decide.json?plant=canada_thistle&settled=yes&date=2026-06-05"
      cut = ->(purpose) { json("#{thistle}&purpose=#{purpose}")["verdicts"].find { |v| v["method"] == "cut_only" } }

      assert_equal ["go", "2026-07-05", 0],
                   cut["hold"].then { |v| [*v.values_at("verdict", "again"), v["kill_percent"]["likely"]] }
      assert_equal ["no", nil], cut["kill"].values_at("verdict", "again")
      stumps = json("/decide.json?plant=amur_honeysuckle&settled=yes&size=wrist&date=2026-10-20&water=200&plants=10&stems=60&licensed=yes")["verdicts"]

      assert_equal [0.67, 0.18], stumps.find { |v| v["method"] == "cut_stump" }.values_at("crew_hours", "mix_l")
      get "/decide?plant=amur_honeysuckle&plants=90&stems=60"

      assert_includes last_response.body, "90 plants have at least as many stems"
      q01 = patch("Q-01")
      kept = { geometry: q01.geometry, seen_on: q01.seen_on.iso8601, plant_key: q01.plant_key, plants: "12",
               stems: "46", aim: "trees", lock_version: q01.lock_version }
      send_form :post, "/survey/patches/#{q01.id}", _method: "put", **kept

      assert_equal [12, "trees"], [patch("Q-01").plants, patch("Q-01").aim]
      assert_equal %w[kill trees], json("/decide.json?patch=#{q01.id}").values_at("asked_to", "aim")
      send_form :post, "/survey/patches/#{q01.id}", _method: "put", **kept, aim: "golf"

      assert_equal 422, last_response.status
    end

    # A property's school reaches the rules; a patch's own goes before it.
    def test_schools_are_kept_and_a_patch_may_differ
      send_form :post, "/decide/schools", at: q.id, herbicide: "none", piles: "haul", hour_cost: "0", currency: "€"

      kind, cost, litres = verdict("Q-05", "cut_stump").values_at("verdict", "cost", "mix_l")

      assert_equal "no", kind
      assert_in_delta litres * 4, cost, 0.01
      send_form :post, "/decide/schools", patch: patch("Q-05").id, herbicide: "stem"

      assert_equal %w[wait no], [verdict("Q-05", "cut_stump")["verdict"], verdict("Q-06", "cut_stump")["verdict"]]
      send_form :post, "/decide/schools", at: q.id, herbicide: "a little", hour_cost: "-4"

      assert_equal 422, last_response.status
      assert_includes last_response.body, 'value="-4"'
    end

    def test_a_rule_is_switched_off_with_a_reason_and_a_name
      dry = -> { verdict("Q-04", "hand_pull", "soil=dry")["verdict"] }
      off = ->(**fields) { send_form(:post, "/decide/rules/off", at: q.id, **fields) }

      assert_equal "wait", dry.call
      off.call(rule: "dry_soil", reason: "", person: "Ada")

      assert_equal 422, last_response.status
      assert_includes last_response.body, "Why is missing"
      off.call(rule: "dry_soil", reason: "Sand that never holds a root", person: "Ada")

      assert_equal "go", dry.call
      get "/decide/rules"

      assert_includes last_response.body, "by Ada: Sand that never holds a root"
      send_form :post, "/decide/rules/off/#{Store::RuleSetting.first.id}/undo"

      assert_equal "wait", dry.call
      off.call(rule: "licence", reason: "We know better", person: "Ada")

      assert_includes last_response.body, "it can be tightened, never switched off"
      assert_empty Store::RuleSetting.live.where(rule_key: "licence")
    end

    def test_a_local_rule_is_added_for_a_zone_and_taken_away
      zone = q.zones.find { |one| one.name == "Blow-down, April 2026" }
      inside = q.live_patches.all.find { |one| one.zones_in_reach&.any? { |near| near.id == zone.id && near.touches? } } || move_onto(zone)
      kind = -> { verdict(inside.code, "report_only", "settled=no")["verdict"] }

      assert_equal "go", kind.call
      send_form :post, "/decide/rules/local", at: q.id, about: "any", zone: zone.id, reason: "Unsafe trees",
                person: "Ada", from: "2026-01-01"

      assert_includes last_response.body, "is needed beside the other"
      send_form :post, "/decide/rules/local", at: q.id, about: "any", zone: zone.id, reason: "Unsafe trees",
                person: "Ada"

      assert_equal "no", kind.call
      get "/decide/rules"

      assert_includes last_response.body, "No work of any kind in Blow-down, April 2026"
      send_form :post, "/decide/rules/local/#{Store::LocalRule.order(:id).last.id}/undo"

      assert_equal "go", kind.call
    end

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
      assert_equal %w[treat disposal treat check replant check close], plan["steps"].map { |step| step["kind"] }
      get "/survey/patches/#{course.patch_id}"

      assert_includes last_response.body, %(href="/decide/courses/#{course.id}")
      get "/records"

      assert_includes last_response.body, "Advised was pull by hand: The Trans want the oaks free"
      get "/decide/courses"

      assert_includes last_response.body, "B-02, Oriental bittersweet"
      assert_equal [course.id], json("/decide/courses.json")["courses"].map { |one| one["id"] }
    end

    def test_methods_and_rules_as_data
      methods = json("/decide/methods.json")["methods"]
      rules = json("/decide/rules.json?at=#{q.id}")

      assert_equal 36, methods.size
      assert(methods.all? { |method| method["brief"].size > 1 && method["minutes_range"]["low"] < method["minutes_range"]["high"] })
      assert_equal %w[craft legal safety school], rules["rules"].map { |rule| rule["force"] }.uniq.sort
      assert_equal [%w[machine 03-15 08-01]], rules["local"].map { |rule| rule.values_at("about", "from", "to") }
      assert_includes rules["rules"].find { |rule| rule["key"] == "sap_rise" }["decides"], "Q-02"
      get "/decide/methods/wand"

      assert_equal 404, last_response.status
    end

    def test_what_never_goes_has_no_course
      send_form :post, "/decide/courses", patch: patch("Q-05").id, method: "cut_only", person: "Ada", reason: "Quick"

      assert_equal 422, last_response.status
      assert_nil patch("Q-05").course
    end

    def test_the_rank_follows_the_weights_of_the_address
      first = ->(query) { json("/decide/first.json?at=#{q.id}&#{query}")["patches"].first["patch"] }

      refute_equal first["w[seed]=10"], first["w[strangling]=10"]
      assert_equal "Q-01", first["w[strangling]=10&w[seed]=1"]
      get "/decide/first?w[seed]=0"

      assert_includes last_response.body, "Every weight is zero"
      send_form :post, "/decide/first", at: q.id, w: { strangling: 10, seed: 1 }

      assert_equal "Q-01", first[""]
    end

    def test_a_season_is_solved_asked_again_and_refused_in_words
      send_form :post, "/decide/plan", at: q.id, **PLAN
      answer = json("/decide/plan.json")["answer"]
      held = answer["items"].first

      assert_operator answer["gain"], :>=, answer["greedy_gain"]
      answer["items"].group_by { |item| item["week"] }
                     .each_value { |items| assert_operator items.sum { |item| item["hours"] }, :<=, 16.001 }
      send_form :post, "/decide/plan/#{Store::SeasonPlan.last.id}/again", patch: held["patch"], wish: "ban"

      refute_includes json("/decide/plan.json")["answer"]["items"].map { |item| item["code"] }, held["code"]
      send_form :post, "/decide/plan", at: q.id, **PLAN, weeks: "99", other: "soon 3", budget: "much"

      ["must be less than or equal to 52", "have a line that " \
                                           "cannot be read", "must be a float", "soon 3"].each { |text| assert_includes last_response.body, text }
    end

    # Nobody licensed, no herbicide in the plan; a plan that is held to the impossible says which limit clashes.
    def test_a_plan_keeps_the_licence_and_says_what_clashes
      send_form :post, "/decide/plan", at: q.id, **PLAN, licensed_from: "2027-01-01", licensed_to: "2027-02-01"
      methods = json("/decide/plan.json")["answer"]["items"].map { |item| Core::Knowledge.shipped.removal(item["method"]) }

      assert_empty methods.select(&:herbicide?)
      send_form :post, "/decide/plan", at: q.id, **PLAN, hours: "0"
      send_form :post, "/decide/plan/#{Store::SeasonPlan.last.id}/again", patch: patch("Q-07").id, wish: "pin"
      get "/decide/plan"

      assert_includes last_response.body,
                      "Q-07 is held where its window is not open, or it takes more hours than any week has"
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

      assert_equal [2026, 2027], answer["windows"].values.flatten.map { |week| Date.iso8601(answer["weeks"][week]).year }.uniq.sort
      assert(answer["items"].all? { |item| answer["windows"].fetch(item["patch"].to_s).include?(answer["weeks"].index(item["week"])) })
    end

    # A large plan is solved beside the page, which says how far it is; one that a stop cut short says so.
    def test_a_long_solve_shows_progress
      plan = Store::SeasonPlan.create(property_id: q.id,
                                      asked: JSON.generate(PLAN.merge(other: {}, weights: {}, pins: [], bans: [])))
      Store::Job.create(kind: "plan", subject_id: plan.id, pid: Process.pid, beat_at: Time.now.utc)
      get "/decide/plan"

      assert_includes last_response.body, "<progress"
      Store::SeasonPlan.recover(all: true)
      get "/decide/plan/#{plan.id}/progress"

      assert_equal "true", last_response.headers["hx-refresh"]
      get "/decide/plan"

      assert_includes last_response.body, "The server stopped while it was solved"
    end

    private

    def move_onto(zone)
      lon, lat = zone.shape.centre
      patch("Q-09").tap do |moved|
        moved.shape = Core::Survey::Shape.new({ "type" => "Point", "coordinates" => [lon, lat] })
        moved.save
      end
    end

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
