# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  # The bench, methods, schools and rules through their pages.
  class WebDecideTest < RackTest
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

      assert_match(%r{Possible</b>with a licensed person on site}, last_response.body)
    end

    def test_crew_tools_and_a_measured_stem_are_read_or_refused_in_words
      assert_equal "no", verdict("Q-04", "hand_pull", "crew=0")["verdict"]
      assert_equal "no", verdict("Q-04", "hand_pull", "tools[]=")["verdict"]
      assert_equal "go", verdict("Q-04", "hand_pull", "tools[]=&tools[]=gloves")["verdict"]
      get "/decide?patch=#{patch("Q-04").id}&crew=many&stem_width=-3&more=1"

      assert_said "How many people: a whole number", "A stem is wider than nothing", 'value="many"', 'value="-3"'
      get "/decide?patch=#{patch("Q-04").id}&size=seedling&stem_width=20"

      assert_includes last_response.body, "is no seedling: it is wider than a wrist"
      patch("Q-04").update(footing: "paving")

      assert_equal "no", verdict("Q-04", "hand_pull")["verdict"]
      assert_equal 200, get("/decide?tools=hammer&s[seed_bank]=moon&slope=up").status
      assert_equal 400, get("/decide?slope[]=up").status, "one answer is one"
    end

    def test_an_unsettled_patch_and_an_imagined_one
      verdicts = json("/decide.json?patch=#{patch("Q-03").id}")["verdicts"]
      undone = verdicts.select { |one| one["verdict"] == "go" }.map { |one| one["method"] }

      assert_empty undone - %w[report_only tag_and_return seed_collect]
      get "/decide?patch=#{patch("Q-11").id}&plant=garlic_mustard"

      assert_equal 200, last_response.status
      imagined = ->(query) do
        path = "/decide.json?plant=amur_honeysuckle&settled=yes&size=wrist&date=2026-10-20&#{query}"
        json(path)["verdicts"].find { |one| one["method"] == "cut_stump" }
      end

      assert_equal [["no", 3.0], ["go", 5.0]],
                   ["", "water=200&stems=100"].map { |query| imagined[query].values_at("verdict", "crew_hours") }
      get "/decide?plant=amur_honeysuckle&stems=-4&area=lots&water=near"

      assert_said "How many stems", "How much ground", "How far the water is", 'value="lots"'
    end

    # What only holds a plant down is a go when that is asked, with the next date and no kill; what is cut and painted
    # goes by stems.
    def test_held_down_and_plants_apart_from_stems
      thistle = "/decide.json?plant=canada_thistle&settled=yes&date=2026-06-05"
      cut = ->(purpose) { json("#{thistle}&purpose=#{purpose}")["verdicts"].find { |v| v["method"] == "cut_only" } }

      assert_equal ["go", "2026-07-05", 0],
                   cut["hold"].then { |v| [*v.values_at("verdict", "again"), v["kill_percent"]["likely"]] }
      assert_equal ["no", nil], cut["kill"].values_at("verdict", "again")
      stumps = json("/decide.json?plant=amur_honeysuckle&settled=yes&size=wrist&date=2026-10-20&water=200&plants=10" \
                    "&stems=60&licensed=yes")["verdicts"]

      assert_equal [3.0, 0.18], stumps.find { |v| v["method"] == "cut_stump" }.values_at("crew_hours", "mix_l")
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

      assert_includes last_response.body, "cannot be switched off"
      assert_empty Store::RuleSetting.live.where(rule_key: "licence")
    end

    def test_a_local_rule_is_added_for_a_zone_and_taken_away
      zone = q.zones.find { |one| one.name == "Blow-down, April 2026" }
      on_it = ->(one) { one.zones_in_reach&.any? { |near| near.id == zone.id && near.touches? } }
      inside = q.live_patches.all.find(&on_it) || move_onto(zone)
      kind = -> { verdict(inside.code, "report_only", "settled=no")["verdict"] }

      assert_equal "go", kind.call
      send_form :post, "/decide/rules/local", at: q.id, about: "any", zone: zone.id, reason: "Unsafe trees",
                person: "Ada", from: "2026-01-01"

      assert_includes last_response.body, "is needed too: enter both fields or neither"
      send_form :post, "/decide/rules/local", at: q.id, about: "any", zone: zone.id, reason: "Unsafe trees",
                person: "Ada"

      assert_equal "no", kind.call
      get "/decide/rules"

      assert_includes last_response.body, "No work of any kind in Blow-down, April 2026"
      send_form :post, "/decide/rules/local/#{Store::LocalRule.order(:id).last.id}/undo"

      assert_equal "go", kind.call
    end

    def test_methods_and_rules_as_data
      methods = json("/decide/methods.json")["methods"]
      rules = json("/decide/rules.json?at=#{q.id}")

      assert_equal 37, methods.size
      whole = ->(method) { method["brief"].size > 1 && method["minutes_range"].values_at("low", "high").reduce(:<) }

      assert(methods.all?(&whole))
      assert_equal %w[craft legal safety school], rules["rules"].map { |rule| rule["force"] }.uniq.sort
      assert_equal [%w[machine 03-15 08-01]], rules["local"].map { |rule| rule.values_at("about", "from", "to") }
      assert_includes rules["rules"].find { |rule| rule["key"] == "sap_rise" }["decides"], "Q-02"
      get "/decide/methods/wand"

      assert_equal 404, last_response.status
    end

    def test_decide_recomputes_from_the_address
      id = patch("Q-04").id
      kind = ->(query) do
        json("/decide.json?patch=#{id}&#{query}")["verdicts"].find { |v| v["method"] == "hand_pull" }["verdict"]
      end

      assert_equal %w[go wait no], ["soil=moist", "soil=dry", "size=wider"].map(&kind)
      answer = json("/decide.json?patch=#{id}&licensed=no")

      sprayed = answer["verdicts"].select { |one| %w[cut_stump basal_bark].include?(one["method"]) }

      assert(sprayed.all? { |one| one["verdict"] == "no" })
      get "/decide?patch=#{id}&date=1492-10-12"

      assert_includes last_response.body, "within a year of today"
    end

    # Settling P-01's aquatic rules by the property's own answers: no licence, no label.
    def test_settings_reach_the_rules
      send_form :get, "/records?at=#{Store::Property.first(prefix: "P").id}"
      send_form :post, "/records/settings", name: "Mill Pond Park", units: "metric", stance: "any", texture: "loam",
                licensed: "true"
      verdicts = json("/decide.json?patch=#{patch("P-05").id}&date=2026-10-05")["verdicts"]
      found = verdicts.find { |one| one["method"] == "cut_stump" }

      assert_equal "go", found["verdict"]
      get "/survey"

      assert_includes last_response.body, " m²"
    end

    private

    def move_onto(zone)
      lon, lat = zone.shape.centre
      patch("Q-09").tap do |moved|
        moved.shape = Core::Survey::Shape.new({ "type" => "Point", "coordinates" => [lon, lat] })
        moved.save
      end
    end
  end
end
