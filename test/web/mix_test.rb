# frozen_string_literal: true

require "csv"
require "nokogiri"
require "support/web"

module Thistle
  class WebMixTest < RackTest
    TYPED = LABEL

    def q = Store::Property.first(prefix: "Q")
    def product = Store::Product.last

    def test_mix_in_us_units_and_its_errors
      id = Store::Property.first(prefix: "P").id
      answer = json("/mix.json?at=#{id}&vessel=jar&active=glyphosate_ipa&stock=41&target=20&stems=100&dose=1")["answer"]

      assert_in_delta 100 * Core::Units::ML_PER_FL_OZ * 20 / 41, answer["product_ml"], 0.1
      assert_operator answer["at_hand_ml"], :>, answer["total_ml"]
      get "/mix?stock=41&target=60"

      assert_includes last_response.body, "stronger than the product"
      assert_includes last_response.body, 'value="60"'
      get "/mix.json?stems=many"

      assert_equal 422, last_response.status
      assert_in_delta 1100, json("/mix.json?at=#{q.id}&stems=1.1e3&dose=1,0")["answer"]["total_ml"]
    end

    # The arithmetic is shown, and so is what forbids it: no licence, a stance, water in reach of a product not made for
    # it.
    def test_a_mix_says_what_the_rules_hold_against_it
      get "/mix?patch=#{patch("P-05").id}"

      assert_said "Not on P-05 today", "No licensed applicator", "without herbicide"
      wet = patch("Q-10").update(water_m: 3.0)
      wet.property.update(aquatic_label: true)
      get "/mix?patch=#{wet.id}&active=glyphosate_ipa"

      assert_includes last_response.body, "label does not allow aquatic use"
      get "/mix?patch=#{wet.id}&active=glyphosate_ipa_aquatic"

      refute_includes last_response.body, "label does not allow"
    end

    # From a label typed once: density, acid, what the label allows; stock that follows records, corrected ones too.
    def test_a_product_from_its_label_to_an_empty_can
      send_form(:post, "/mix/shelf", at: q.id, **TYPED)
      follow_redirect!

      assert_said "1.169 kg/L", "50 % to 100 %", "Our concentrate is on the shelf."
      answer = json("/mix.json?product=#{product.id}&target=20&said=active&stems=10&dose=1")

      assert_match(/48.78 % of product is outside the label.s 50 % to 100 %/, answer["objections"].first["text"])
      assert_in_delta 10 * 0.4878 * 479.3 / 1000 * 0.741, answer["answer"]["acid_g"]["glyphosate_ipa"], 0.01
      assert_empty json("/mix.json?product=#{product.id}&target=60&said=product&stems=10&dose=1")["objections"]
      assert_match(/no use on leaves/, json("/mix.json?vessel=tank&product=#{product.id}")["objections"].first["text"])
      used = { patch: patch("Q-05").id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2", hours: "1",
               stems_done: "20", product_id: product.id, product: "100", mix: "200", applicator: "M. Oakes" }
      send_form(:post, "/work/treatments", **used)

      assert_equal 303, last_response.status
      work = Store::Treatment.last

      assert_equal ["glyphosate_ipa", product.id], work.values.values_at(:active_key, :product_id)
      assert_in_delta 2400, product.on_hand_ml
      work.take_back(version: 0, person: "R. Lindqvist", reason: "it was another can")

      assert_in_delta 2500, product.on_hand_ml
      send_form(:post, "/mix/shelf/#{product.id}/count", counted: "1800")

      assert_in_delta 1800, product.on_hand_ml
    end

    def test_a_label_that_cannot_be_so_is_sent_back_with_what_was_typed
      { { grams1: "900" } => "gives 2.195 kg/L, and such a product weighs 0.97 to 1.5.",
        { grams1: "356" } => "Does the label print acid? As acid it is 1.172 kg/L.",
        { acid_grams1: "356" } => "or active, not both",
        { density: "1400" } => "one of them is not what the label says",
        { percent1: "", grams1: "" } => "how strong is it",
        { high_cut_stump: "20" } => "is below the least", { wind_high: "2" } => "is below the lowest",
        { active2: "glyphosate_ipa", percent2: "5" } => "two different ones",
        { expires_on: "0026-01-01" } => "is no year of a label" }.each do |wrong, words|
        send_form(:post, "/mix/shelf", **TYPED, **wrong)

        assert_equal 422, last_response.status, words
        assert_said words, 'value="Our concentrate"'
      end
      send_form(:post, "/mix/shelf", **TYPED, grams1: "")

      assert_match(/Type the active in g.L/, json("#{last_response.location[%r{/mix.*}]}.json")["warnings"].first)
    end

    # Two people with the same page open: the second is told, and loses nothing.
    def test_a_product_changed_meanwhile
      send_form(:post, "/mix/shelf", **TYPED)
      2.times { send_form(:put, "/mix/shelf/#{product.id}", **TYPED, name: "Corrected", lock_version: "0") }

      assert_equal 422, last_response.status
      assert_said "Someone else changed this product meanwhile", 'value="Corrected"'
    end

    # A label that was kept for its weather alone: every page says what is missing, none fails.
    def test_a_product_of_which_only_the_weather_is_known
      id = Store::Product.create(name: "Leaf spray", wind_high: 9.0).id
      Store::InUse.choose(q, "foliar", Store::Product[id])
      ["/mix/shelf", "/mix/shelf/#{id}", "/mix/shelf/#{id}/edit", "/mix?vessel=tank", "/mix?product=#{id}",
       "/mix?vessel=tank&patch=#{patch("Q-05").id}", "/mix/other-end?product=#{id}", "/season/fit?work=foliar",
       "/work?patch=#{patch("Q-05").id}&method=foliar_spot&product_id=#{id}", "/mix/shelf/file"].each do |path|
        assert_equal 200, get(path).status, path
      end
      assert_includes json("/mix/shelf/#{id}.json")["warnings"],
                      "No active ingredient was entered. Enter it to mix this product."
      assert_nil json("/mix.json?vessel=tank")["product"]["id"]
    end

    # The label of the product in use goes before planning values, in the hours and in the rules.
    def test_the_product_in_use
      send_form(:post, "/mix/shelf", at: q.id, **TYPED)
      open = json("/season/fit.json?at=#{q.id}")["fit"]["stem"].size
      send_form(:post, "/mix/in-use", kind: "stem", product: product.id)

      assert_equal({ stem: { wind_low: 4.0, wind_high: 6.0, rainfast_h: 6.0 } }, q.label_limits)
      assert_operator json("/season/fit.json")["fit"]["stem"].size, :<, open
      assert_equal product.id, json("/mix.json?vessel=jar")["product"]["id"]
      send_form(:delete, "/mix/shelf/#{product.id}")

      assert_nil q.label_limits
      send_form(:post, "/mix/shelf/#{product.id}/undo")
      send_form(:post, "/mix/in-use", kind: "stem", product: "")

      assert_nil q.label_limits
    end

    # A shelf goes out as a table and comes back the same, in either system of units; a broken row takes nothing.
    def test_a_shelf_as_a_table
      Store::Property.order(:id).first(2).each do |property|
        table, before = get("/mix/shelf/file?at=#{property.id}").body, shelf
        Store::Product.dataset.delete
        send_form(:post, "/mix/shelf/file", file: upload(table, "shelf.csv"))

        assert_equal before, shelf
        broken = "name,active1,percent1\nA,glyphosate_ipa,41\nB,none,9\n"
        send_form(:post, "/mix/shelf/file", file: upload(broken, "b.csv"))

        assert_said "line 3, active1"
        assert_equal before.size, Store::Product.count
      end
    end

    def shelf
      Store::Product.named.map do |one|
        [one.name, one.form, one.aquatic, one.uses_said.map(&:to_h).sort_by(&:to_s), one.wind_high&.round(1),
         one.ingredients.map { |part| [part.key, part.percent, part.grams_per_litre&.round(1)] }, one.first_aid]
      end
    end

    # 60 stubs and 20 mL where each takes 1 mL: said at once, and on the patch. Records pull the dose and the batch.
    def test_the_missed_stub_alarm_and_what_records_say
      work = { patch: patch("Q-05").id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2", hours: "1",
               active_key: "glyphosate_ipa", product: "10", applicator: "M. Oakes", stems_done: "60" }
      size = patch("Q-05").stem_size
      before = Store::Usage.of(Core::Knowledge.shipped.removal("cut_stump"), size).count
      send_form(:post, "/work/treatments", **work, mix: "20")
      follow_redirect!

      assert_match(/The mix used is enough for about \d+ of 60 stubs \(\d+ to \d+\)/, last_response.body)
      6.times { send_form(:post, "/work/treatments", **work, mix: "120") }
      found = json("/mix.json?at=#{q.id}&patch=#{patch("Q-05").id}&stems=100")

      assert_equal [before + 7, true], found["usage"].values_at("records", "own")
      assert_operator found["usage"]["middle_ml"], :>, 1.0
      assert_operator found["batch"]["enough"], :>, 0.5
      get "/mix?patch=#{patch("Q-05").id}"

      assert_said "To have at hand", "From #{before + 7} records here"
      assert_nil json("/mix.json?patch=#{patch("Q-05").id}&walk=x")["batch"]
      spray = { **work.except(:stems_done), method_key: "foliar_spot", product: "100", mix: "8000", area: "100" }
      5.times { send_form(:post, "/work/treatments", **spray) }
      found = json("/mix.json?vessel=tank&area=400")

      assert found["usage"]["own"]
      assert_operator found["usage"]["middle_ml"], :>, 5000
      assert_in_delta found["usage"]["middle_ml"] * 4, found["answer"]["total_ml"], 50
      assert_operator found["answer"]["at_hand_ml"], :>=, found["answer"]["total_ml"], "never less than is mixed"
    end

    # What lies on the ground this year, against the label: held against the mix past it, stored when it was done.
    def test_the_label_s_year
      send_form(:post, "/mix/shelf", at: q.id, **TYPED, most1: "2")
      id, patch = product.id, patch("Q-05")
      work = { patch: patch.id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2", hours: "1", mix: "900",
               product_id: id, product: "500", applicator: "M. Oakes", stems_done: "60" }
      send_form(:post, "/work/treatments", **work)
      lies = 0.5 * 479.3 * (169.07 / 228.18) / patch.ground.area * 10_000
      bench = json("/mix.json?patch=#{patch.id}&product=#{id}&stems=10")

      assert_in_delta lies, bench["limits"]["acids"].first["lies_g_per_ha"], 0.5
      refute bench["limits"]["acids"].first["over"]
      bench = json("/mix.json?patch=#{patch.id}&product=#{id}&stems=9000")

      assert bench["limits"]["acids"].first["over"]
      assert_match(/of glyphosate acid would lie on it this year; the label.s most is 2 kg/,
                   bench["objections"].map { |one| one["text"] }.join)
      get "/mix?patch=#{patch.id}&product=#{id}"

      assert_said "Yearly label limit on"
      send_form(:post, "/work/treatments", **work, product: "90000", mix: "90000")
      follow_redirect!

      assert_said "has been applied this year. The label allows"
    end

    # A plan that sprays 40 L at 2 % wants 800 mL of product; there are 300.
    def test_the_shelf_says_when_a_season_plan_wants_more
      send_form(:post, "/mix/shelf", at: q.id, **TYPED, use_foliar: "true", low_foliar: "2", counted: "300")
      send_form(:post, "/mix/in-use", kind: "foliar", product: product.id)
      answer = { items: [{ method: "foliar_spot", litres: 40.0, week: "2026-05-18" },
                         { method: "foliar_spot", litres: 90.0, week: "2026-04-06" },
                         { method: "hand_pull", litres: 0.0, week: "2026-05-18" }] }
      Store::SeasonPlan.create(property_id: q.id, asked: "{}", status: "solved", answer: JSON.generate(answer))

      assert_includes json("/mix/shelf/#{product.id}.json")["warnings"],
                      "The season plans want 800 mL: 500 mL more than there is."
    end

    # Stems counted by size: 20 pencils at 0.3 mL, 10 wrists at 3 mL and 5 seedlings that take none are 36 mL.
    def test_a_patch_of_mixed_sizes
      mixed = patch("Q-17")
      mixed.update(stems: 35, stems_by_size: JSON.generate(seedling: 5, pencil: 20, wrist: 10))
      Store::FollowUps.settle(mixed)

      assert_in_delta 36, json("/mix.json?at=#{q.id}&patch=#{patch("Q-17").id}")["answer"]["total_ml"], 0.1
    end

    # A label that says a rate: 1.5 L/ha at most; 2 % in 5 L on 100 m² are 10. Corrected for a slip, and as a new label.
    def test_a_rate_on_the_ground
      spray = { name: "Leaf can", active1: "glyphosate_ipa", percent1: "41", grams1: "479", use_foliar: "true",
                low_foliar: "1", high_foliar: "5", rate_high_foliar: "1.5" }
      send_form(:post, "/mix/shelf", at: q.id, **spray, rate_low_foliar: "3")

      assert_said "is below the least"
      send_form(:post, "/mix/shelf", **spray)
      path = "/mix.json?vessel=tank&product=#{product.id}&said=product&target=2&area=100"

      assert_match(%r{10 L/ha of product is outside the label.s any to 1.5 L/ha for leaves},
                   json("#{path}&rate=5")["objections"].first["text"])
      assert_empty json("#{path}&rate=0.7")["objections"]
      get "/mix/shelf/#{product.id}"

      assert_said "any to 1.5 L/ha"
      assert_in_delta 1500, product.uses_said.first.rate_high
      send_form(:put, "/mix/shelf/#{product.id}", **spray, name: "Leaf can 2", lock_version: "0", mistyped: "true")

      assert_equal ["Leaf can 2", 0], [product.name, Store::LabelVersion.count]
    end

    # The card says what the bench says, on the page and in a PDF in our typeface, on the paper of the land.
    def test_the_card_for_the_truck
      send_form(:post, "/mix/shelf", at: q.id, **TYPED, first_aid: "Rinse <eyes> & call 12\u{1F4A5}.")
      query = "product=#{product.id}&target=60&said=product&stems=850&dose=1&container=500&dye=1"
      get "/mix/card?#{query}"

      assert_said "Our concentrate, 60 % of the volume", "2 loads: 1 of 500 mL, the last of 350 mL", "300 mL", "210 mL",
                  "561 mL", "Put rinse water on the same ground",
                  "Rinse &lt;eyes&gt; &amp; call 12", "Not typed: read the label."
      get "/mix/card.pdf?#{query}"

      assert_equal ["application/pdf", "%PDF"], [last_response.media_type, last_response.body[0, 4]]
      assert_includes last_response.body, "AtkinsonHyperlegible"
      assert_includes last_response.body, "/MediaBox [0 0 612 792]"
      get "/mix/card?stems=none"

      assert_equal "/mix", URI(last_response.location).path
      assert_equal 404, get("/mix/card.pdf?stems=none").status
    end

    # CHECKS.md through the page: 0.4 GPM, 5 mph and 20 in are 23.76 gal/ac; kept, it stands in the tank.
    def test_a_sprayer_is_measured
      us = Store::Property.first(units: "us")
      found = json("/mix/calibration.json?at=#{us.id}&way=nozzle&ml=51.2&seconds=60&pace=5&spacing=20")

      assert_in_delta 222.25, found["litres_per_ha"], 0.001
      timed = { way: "nozzle", ml: "51.2", seconds: "60", distance: "100", runs: "13.4; 13.6364; 20", spacing: "20" }

      assert_in_delta 222.25, json("/mix/calibration.json?#{URI.encode_www_form(timed)}")["litres_per_ha"], 0.01
      assert_equal "worn", json("/mix/calibration.json?way=wear&ml=12&rated=10")["nozzle"]["verdict"]
      assert_match(/a pace of at most/,
                   json("/mix/calibration.json?way=nozzle&ml=1&pace=90&spacing=20")["errors"]["pace"])
      send_form(:post, "/mix/calibration", **timed, sprayer: "blue backpack", person: "Ines")
      get "/mix?vessel=tank"

      assert_said "blue backpack, Ines", 'value="23.76"'
      team = { way: "team", side: "18.45", who1: "Ines", ml1: "27", who2: "Ramon", ml2: "33", who3: "Jo", ml3: "30" }
      found = json("/mix/calibration.json?#{URI.encode_www_form(team)}")

      assert_in_delta 30, found["litres_per_ha"] / Core::Mix::Quantity.of(1, "gal/ac").to("L/ha"), 0.01
      assert_equal [[-0.1, 0.1, 0], false], [found["team"]["people"].map { |one| one["off"].round(3) },
                                             found["team"]["uneven"]]
      send_form(:post, "/mix/calibration", **team, ml2: "40", sprayer: "three blue ones")
      get "/mix/calibration"

      assert_said "three blue ones, Ines, Ramon, Jo together", "three blue ones, Ramon"
      send_form(:post, "/mix/calibration", way: "plot", sprayer: "blue backpack")

      assert_equal 422, last_response.status
      assert_said "Measure first"
    end

    # By hand: equal parts of a 41 % product are 20.5 %; a litre of 41 % wants 1050 mL for 20 %; 100 mL at 2 % are 5 L.
    def test_from_the_other_end
      found = json("/mix/other-end.json?at=#{q.id}&product=glyphosate_ipa&product_poured=250&carrier_poured=250" \
                   "&have=1000&from=41&down_to=20&product_have=100&percent=2&dose=5")

      assert_in_delta 20.5, found["poured"]["active"]
      assert_in_delta 1050, found["carrier_to_add_ml"]
      assert_equal [5000.0, 909], found.values_at("mix_ml", "stems")
      assert_match(/only makes it weaker/, json("/mix/other-end.json?have=1&from=20&down_to=41")["errors"]["down_to"])
    end
  end
end
