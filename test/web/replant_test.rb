# frozen_string_literal: true

require "csv"
require "nokogiri"
require "support/web"

module Thistle
  # From the ground to a plan on paper.
  class WebReplantTest < RackTest
    def q04 = patch("Q-04")

    def plan(**asked)
      send_form :post, "/replant/plans", patch: q04.id, kind: "plugs", area: "120", kinds: "9", **asked
      Store::PlantingPlan.order(:id).last
    end

    def test_what_is_said_of_the_ground_is_kept_and_changes_the_list
      before = json("/replant.json?patch=#{q04.id}")

      assert_equal ["part", "the patch’s record"], before["site"]["light"].values_at("value", "from")
      get "/replant?patch=#{q04.id}&s[ph]=acid&s[deer]=yes"

      assert_includes last_response.body, "number from 3 to 10"
      send_form :post, "/replant/site", patch: q04.id, "s[deer]": "yes", "s[ph]": "6,2", "s[view_cm]": "1.2"
      kept = json("/replant.json?patch=#{q04.id}")

      assert_equal [6.2, 120.0, "kept for this patch"],
                   [kept["site"]["ph"]["value"], kept["site"]["view_cm"]["value"], kept["site"]["deer"]["from"]]
      assert_operator kept["natives"].size, :<, before["natives"].size
      send_form :post, "/replant/site", patch: q04.id, "s[deer]": "?", "s[salt]": "no"
      kept = json("/replant.json?patch=#{q04.id}")["site"]

      assert_equal [nil, "no", 6.2], [kept["deer"], kept["salt"]["value"], kept["ph"]["value"]]
      send_form :post, "/replant/site", patch: q04.id, "s[ph]": "99"

      assert_equal 422, last_response.status
    end

    # What the page shows on the record's word, sent along with the form, is nobody's word; a new one is.
    def test_what_only_stands_there_is_not_said
      page = Nokogiri::HTML5(get("/replant?patch=#{q04.id}").body)
      form = page.at_css("#palette")
      sent = form.css("input[type=hidden], input[checked], option[selected]").filter_map do |field|
        name = field["name"] || field.ancestors("select").first["name"]
        [name, field["value"]]
      end
      again = json("/replant.json?#{URI.encode_www_form(sent)}")["site"]

      from = %w[light soil jobs].map { |fact| again[fact]["from"] }

      assert_equal ["the patch’s record", "the property’s soil, loam", "the patch’s record"], from
      sunny = [*sent.reject { |field| field.first == "s[light]" }, ["s[light]", "sun"]]
      said = json("/replant.json?#{URI.encode_www_form(sunny)}")

      assert_equal ["sun", "said here"], said["site"]["light"].values_at("value", "from")
    end

    # The rate in the property's own unit, a nurse crop, seed of the own region alone; and the plan is the mix that was
    # shown, share by share.
    def test_a_sowing_as_it_is_made
      asked = { patch: q04.id, kind: "seed", area: "500", kinds: "9" }
      found = json("/replant/mix.json?#{URI.encode_www_form(asked)}")

      assert_in_delta 50, found["rate"]["seeds_ft2"], 0.01
      assert_operator found["items"].map { |one| one["share"] }.uniq.size, :>, 1, "shares by what each is for"
      more = { sow: "drilled", rate: "9", rate_unit: "kg_ha", nurse: "oats", nurse_rate: "40" }
      found = json("/replant/mix.json?#{URI.encode_www_form(asked.merge(more))}")

      assert_in_delta 9, found["rate"]["kg_ha"], 0.01
      assert_equal({ "key" => "oats", "grams" => 2000.0 }, found["nurse"])
      page = Nokogiri::HTML5(get("/replant/mix?#{URI.encode_www_form(asked.merge(more))}").body)
      shown = page.at_css("input[name=shown]")["value"]
      swapped = shown.split(",").map { |one| one.split(":") }
      swapped[0][1], swapped[1][1] = swapped.first(2).map { |one| one[1].to_i }.then { |a, b| [a - 1, b + 1] }
      send_form :post, "/replant/plans", **asked, **more, shown: swapped.map { |one| one.join(":") }.join(",")
      made = Store::PlantingPlan.order(:id).last

      assert_equal swapped.to_h { |key, parts| [key, parts.to_i / 40.0] },
                   made.items.to_h { |item| [item.native.key, item.share] }
      assert_equal %w[drilled oats], made.sown.values_at(:way, :nurse)
      get "/replant/plans/#{made.id}"

      assert_said "2 kg of oats"
      lot = { native: made.items.first.native.key, name: "L", grams: "900", purity: "90", germination: "60" }
      send_form :post, "/replant/seed", **lot, dormant: "50"

      assert_said "over 100 % together"
      send_form :post, "/replant/seed", **lot, dormant: "30", origin: "Knox County", origin_region: "na_northeast"
      get "/replant/seed"

      assert_said "30 % hard or dormant", "another region than this land’s"
      live = ->(**how) do
        items = json("/replant/mix.json?#{URI.encode_www_form(asked.merge(how))}")["items"]
        items.find { |one| one["native"] == lot[:native] }&.fetch("tagged")
      end

      assert_equal [true, false], [live.call, live.call(own_seed: "true")].map { |one| one || false }
    end

    # Planned, planted, alive: fewer went in than were planned, and what lives is counted of those.
    def test_fewer_go_in_than_were_planned
      made = plan
      first = made.plantings.first
      send_form :post, "/replant/plans/#{made.id}/planted", on: "2026-05-12", "plants[]": [first.native_key],
                                                            "n_#{first.native_key}": "none"

      assert_said "is a whole number of plants"
      send_form :post, "/replant/plans/#{made.id}/planted", on: "2026-05-12", "plants[]": [first.native_key],
                                                            "n_#{first.native_key}": "3"
      lives = json("/replant/plans/#{made.id}/take.json")["natives"].first

      assert_equal [first.plugs, 3], lives.values_at("planned", "planted")
      assert_nil lives["survival"]["low"]
    end

    # Under a canopy of 80 % the sun's path makes shade of it, whatever the record says.
    def test_light_by_the_sun_through_the_canopy
      site = json("/replant.json?patch=#{q04.id}&s[canopy]=80")["site"]

      assert_equal "shade", site["light"]["value"]
      assert_match(/sun’s path/, site["light"]["from"])
    end

    def test_a_mix_with_keeps_and_bans
      mix = json("/replant/mix.json?patch=#{q04.id}&kind=plugs&area=200&take[]=wild_geranium&ban[]=golden_ragwort")
      keys = mix["items"].map { |item| item["native"] }

      assert_in_delta 1.0, mix["items"].sum { |item| item["share"] }
      assert_includes keys, "wild_geranium"
      refute_includes keys, "golden_ragwort"
      past = json("/replant/mix.json?patch=#{q04.id}&area=1e400")

      assert_equal [nil, "must be less than or equal to 100000000"], [past["area_m2"], past["errors"]["area"]]
      get "/replant/mix?patch=#{q04.id}&most=5&kinds=4"

      assert_includes last_response.body, "does not fill the ground"
      get "/replant/mix?patch=#{q04.id}&kind=seed&budget=0.01"

      assert_includes last_response.body, "within that budget"
      get "/replant/mix?patch=#{q04.id}&area=0&kinds=many&grass_low=80&grass_high=20"

      assert_equal [200, true], [last_response.status, last_response.body.include?("is below the least")]
    end

    def test_a_plan_is_drawn_recorded_and_handed_out
      made = plan
      drawn = json("/replant/plans/#{made.id}.json")

      assert_equal drawn["bed"]["plants"].size, drawn["items"].sum { |item| item["plants"] }
      assert_equal made.items.size, q04.plantings.size
      rows = get_csv("/replant/plans/#{made.id}/order.csv")

      assert_equal drawn["bed"]["plants"].size, rows.sum { |row| row["number"].to_i }
      points = json("/replant/plans/#{made.id}/plants.geojson")["features"]
      ground = q04.ground

      assert_equal drawn["bed"]["plants"].size, points.size
      points.sample(20, random: Random.new(1)).each do |point|
        assert_operator ground.distance(Core::Survey::Shape.new(point["geometry"], [])), :<, 0.05
      end
      get "/replant/plans/#{made.id}/plan.pdf"

      assert last_response.body.start_with?("%PDF")
      svg = Nokogiri::XML(get("/replant/plans/#{made.id}/plan.svg").body)

      assert_equal drawn["bed"]["plants"].size, svg.css("path").sum { |path| path["d"].scan("h0").size }
    end

    # A house over the whole patch: nothing may be planted, and nothing is written.
    def test_a_bed_on_kept_ground
      around = Core::Survey::Overlay.buffer(q04.ground, 5)
      Store::Zone.draw(q04.property, around, kind: "building")
      send_form :post, "/replant/plans", patch: q04.id, kind: "plugs", area: "120"

      assert_equal 422, last_response.status
      assert_includes last_response.body, "Nothing of this ground may be planted"
      assert_empty q04.plantings
    end

    def get_csv(path) = CSV.parse(get(path).body, headers: true)

    def test_a_plan_is_changed_and_taken_back
      made = plan
      send_form :post, "/replant/plans/#{made.id}/plants/0", x: "1.5", y: "2.25", version: made.version

      assert_equal [204, [1.5, 2.25]], [last_response.status, made.refresh.laid_out[:plants][0].first(2)]
      send_form :post, "/replant/plans/#{made.id}/lay", front: "180", grid: "square", standing: "3, 2, x"

      assert_equal 422, last_response.status
      assert_includes last_response.body, "Line 1 is not three numbers"
      send_form :post, "/replant/plans/#{made.id}/lay", front: "180", grid: "square", standing: "20, 4, 1.5"

      assert_equal 303, last_response.status
      send_form :post, "/replant/plans/#{made.id}/plants/0", x: "1", y: "1", version: made.version - 1

      assert_equal 409, last_response.status, "the bed was laid out anew meanwhile"
      assert_equal made.refresh.counts, q04.plantings.map(&:plugs)
      get "/replant/plans/#{made.id}?people=0"

      assert_includes last_response.body, "People are 1 to 60"
      send_form :post, "/replant/plans/#{made.id}/take-back"

      assert_empty q04.plantings
    end

    def test_a_species_of_a_nearby_region_needs_a_reason
      asked = { "f[]": "beside", "take[]": "green_and_gold", "s[light]": "part" }
      plan(**asked)

      assert_equal 422, last_response.status
      made = plan(**asked, reason: "Grows wild ten miles south.")

      assert_equal "Grows wild ten miles south.", made.reason
      get "/replant/plans/#{made.id}"

      assert_includes last_response.body, "Of a nearby region, on purpose"
    end

    # By the tag of the lot on the shelf: half the germination, twice the weight.
    def test_seed_is_weighed_by_the_tag
      address = "/replant/mix.json?patch=#{q04.id}&kind=seed&area=100"
      before = json(address)["items"].find { |item| item["native"] == "virginia_wildrye" }
      lot = { native: "virginia_wildrye", name: "lot 1", purity: "90", germination: "0", grams: "500" }
      send_form :post, "/replant/seed", **lot

      assert_equal 422, last_response.status
      send_form :post, "/replant/seed", **lot, germination: "37.5", tested_on: "2025-01-10", cost: "0.2"
      kept = json("/replant/seed.json").find { |one| one["native"] == "virginia_wildrye" }

      assert_equal [0.3375, true], kept.values_at("live_share", "out_of_date")
      after = json(address)["items"].find { |item| item["native"] == "virginia_wildrye" }

      assert_in_delta 2 * before["bulk_seed_g"] / before["share"], after["bulk_seed_g"] / after["share"], 0.5
    end

    def test_when_and_how_the_ground_is_made_ready
      made = plan
      told = json("/replant/plans/#{made.id}/when.json")

      assert_includes told["weeks"].map { |week| week["date"] }, told["best_week"]
      assert(told["weeks"].all? { |week| week["date"] >= "2026-05-12" }, "no week that is over")
      assert_equal 11, told["readying"].size
      assert_includes get("/replant/plans/#{made.id}/when").body, "need the least watering"
    end

    # In the ground on 20 April; a look over the stock a fortnight later, a count after a year; counted, and taken back.
    def test_what_took
      made = plan
      keys = made.items.map { |item| item.native.key }
      send_form :post, "/replant/plans/#{made.id}/planted", on: "2027-01-01", "plants[]": keys

      assert_equal 422, last_response.status
      send_form :post, "/replant/plans/#{made.id}/planted", on: "2026-04-20", "plants[]": keys
      due = Store::Task.where(patch_id: q04.id).select_order_map(:due_on)

      assert_includes due, Date.new(2026, 5, 4)
      assert_includes due, Date.new(2027, 4, 20)
      planting = made.refresh.plantings.first
      address = "/replant/plans/#{made.id}/counts"
      send_form :post, address, planting: planting.id, counted_on: "2026-05-10", looked_at: "10", alive: "12"

      assert_equal 422, last_response.status
      send_form :post, address, planting: planting.id, counted_on: "2026-04-01", frames: "ten"

      assert_includes last_response.body, "is before it was planted"
      send_form :post, address, planting: planting.id, counted_on: "2026-05-10", looked_at: "10", alive: "4",
                                frames: "5 10 8"
      told = json("/replant/plans/#{made.id}/take.json")
      native = told["natives"].find { |one| one["native"] == planting.native_key }

      assert_in_delta (4.5 + 4) / 16, native["survival"]["mean"]
      assert_operator native["again"], :>, 0
      send_form :post, "/replant/counts/#{Store::SurvivorCount.first(planting_id: planting.id).id}/drop"

      assert_in_delta 0.75, json("/replant/plans/#{made.id}/take.json")["natives"].first["survival"]["mean"]
    end

    # Dry for a month after planting: Today asks for water, until somebody poured it.
    def test_water_owed_stands_on_today
      made = plan
      made.planted(Date.new(2026, 5, 12) - 60)
      site = q04.property.site(Testing::TODAY)
      dry = Core::Season::Day.new(date: Testing::TODAY, tmin: 20.0, tmax: 36.0, rain: 0.0)
      site.stub(:day, dry) do
        owed = Store::WaterOwed.new([q04.property], Testing::TODAY).rows

        mine = owed.find { |one| one.patch.id == q04.id }

        assert_equal Testing::TODAY, mine.on
        send_form :post, "/replant/water", patch: q04.id

        assert_operator Store::WaterOwed.new([q04.property], Testing::TODAY).of(q04).fill, :>, mine.fill
      end
    end

    def test_spacing_and_own_seed
      told = json("/replant/spacing.json?native=blue_grama&price=2")

      assert_equal told["best_m"], told["choices"].min_by { |one| one["cost"] }["spacing_m"]
      assert_includes get("/replant/spacing?native=nothing&price=x").body, "must be"
      gathered = json("/replant/gather.json?all=1&native=indiangrass&plants=200&each=300")

      assert_in_delta 15.58, gathered["most_g"], 0.01
      assert_equal gathered["windows"].map { |one| one["from"] }, gathered["windows"].map { |one| one["from"] }.sort
    end

    # Three places in a row east of the gate: out and back is twice the farthest; what is not ripe is left out.
    def test_a_walk_past_what_is_ripe
      gate = Store::Property.first.zones_of("access").first.shape.positions.first
      { 0.001 => "indiangrass", 0.003 => "little_bluestem", 0.002 => "indiangrass", 0.004 => "golden_ragwort" }
        .each do |east, native|
          point = JSON.generate(type: "Point", coordinates: [gate[0] + east, gate[1]])
          send_form :post, "/replant/gather/places", geometry: point, native:, plants: "80"
        end
      told = json("/replant/gather.json?on=2026-10-05")
      far = Core::Survey::Geodesic.distance(gate, [gate[0] + 0.003, gate[1]])

      assert_equal 3, told["round"].size
      refute_includes told["round"].map { |one| one["native"] }, "golden_ragwort"
      assert_in_delta 2 * far, told["round_m"], 2
      send_form :post, "/replant/gather/places", geometry: "", native: "indiangrass"

      assert_includes last_response.body, "Draw a point"
      send_form :post, "/replant/gather/places/#{Store::GatherPlace.first(native_key: "indiangrass").id}/drop"

      assert_equal 2, json("/replant/gather.json?on=2026-10-05")["round"].size
    end
  end
end
