# frozen_string_literal: true

require "support/web"

module Thistle
  # Lands begun from nothing in other countries: each has the region, year, money, law, grid, paper, names and natives
  # of its own place (recalled).
  class WebAbroadTest < RackTest
    LANDS = {
      "Karori gully" => [[174.745, -41.285], "tradescantia",
                         { region: "new_zealand", climate: "mild", coin: "$", rule: "new_zealand", call: "111",
                           grid: /E 174\d{4} N 542\d{4}/, paper: "595.28 841.89", date: "12 May", native: "Māhoe",
                           law: "National Pest Plant Accord" }],
      "Ennerdale beck" => [[-3.35, 54.52], "himalayan_balsam",
                           { region: "british_isles", climate: "frost", coin: "£", rule: "united_kingdom", call: "999",
                             grid: /NY 1\d{3} 1\d{3}/, paper: "595.28 841.89", date: "12 May", native: "Hazel",
                             law: "Schedule 9" }],
      "Oyster bay" => [[-124.0, 49.05], "gorse",
                       { region: "canada_west", climate: "winter_wet", coin: "$", rule: "canada", call: "911",
                         grid: /10U 4\d{5} 54\d{5}/, paper: "612 792", date: "May 12", native: "Salal",
                         law: "British Columbia" }]
    }.freeze

    def test_three_lands_from_boundary_to_replanting
      LANDS.each do |name, (at, plant, told)|
        land, patch = begin_land(name, at, plant)

        assert_equal told.values_at(:region, :climate, :rule),
                     [land.region, land.site(Testing::TODAY).climate.key, land.record_rule], name
        assert_equal told.values_at(:coin, :call), [land.rates.currency, land.habits.emergency[/\d+/]], name
        assert_match told[:grid], page("/survey/patches/#{patch.id}"), name
        assert_includes page("/identify/plants/#{plant}"), told[:law]
        assert_includes page("/decide?patch=#{patch.id}"), told[:coin]
        assert_includes page("/mix/shelf/new"), land.habits.clothing, name
        assert_includes page("/replant?patch=#{patch.id}&s[light]=shade&s[moisture]=moist"), told[:native]
        assert_includes page("/identify"), "The year here: <b>#{told[:date]}</b>", name
        assert_includes page("/records"), %(placeholder="#{land.habits.emergency}")
        assert_includes get("/mix/records.pdf").body.b, "/MediaBox [0 0 #{told[:paper].split.reverse.join(" ")}".b, name
      end
    end

    # Found by any of its names, with accents and without; a region's own name stands on its page.
    def test_names_of_other_tongues
      { "Barf yr hen ŵr" => "old_mans_beard", "barf yr hen wr" => "old_mans_beard", "suurvy" => "ice_plant",
        "ajonc" => "gorse", "Uña de gato" => "cats_claw_creeper", "una de gato" => "cats_claw_creeper",
        "sceach gheal" => "hawthorn", "Éphémère de Rio" => "tradescantia" }.each do |typed, key|
        assert_includes Store::PlantNames.find(typed).first(3), key, typed
      end
      Core::Knowledge.shipped.names.each_key do |key|
        Core::Knowledge.shipped.names_elsewhere(key).each do |name|
          refute_nil Core::Knowledge.shipped.key_named(name) || Core::Knowledge.shipped.palette[key], name
        end
      end
      begin_land("Karori gully", [174.745, -41.285], "tradescantia")

      assert_includes page("/identify/plants/tradescantia"), "<b>New Zealand</b> <span>Wandering willie"
      assert_includes page("/find?q=tradescantia"), "(here Wandering willie)"
      assert_match(%r{<b>Mānuka</b>.*?at home here}m, page("/find?q=manuka"))
    end

    # What a steward writes down counts before any list, and can be given back to the lists.
    def test_what_the_law_asks_is_the_stewards_to_say
      land, = begin_land("Ennerdale beck", [-3.35, 54.52], "himalayan_balsam")
      balsam = Testing.plant("himalayan_balsam")

      assert_equal [:move], land.duties_of(balsam).map(&:asked)
      %W[/identify/plants/himalayan_balsam /decide?patch=#{land.live_patches.first.id}].each do |path|
        assert_includes page(path), "may not be moved by law here"
      end
      assert_equal %w[move], json("/identify/plants/himalayan_balsam.json")["by_law"].map { |duty| duty["asked"] }
      refute land.reports_first?(balsam)
      send_form :post, "/identify/plants/himalayan_balsam/law", "duties" => { "report" => "1", "nonsense" => "1" }

      assert_equal [:report], land.refresh.duties_of(balsam).map(&:asked)
      assert land.reports_first?(balsam), "reported before it is removed"
      assert_match(/The lists in this library ask more.*It may not be moved/m,
                   page("/identify/plants/himalayan_balsam"))
      assert_includes page("/records/lists/patches"), "report"
      send_form :post, "/identify/plants/himalayan_balsam/law", "by" => "lists"

      assert_equal [:move], land.refresh.duties_of(balsam).map(&:asked)
    end

    # Each with the property as it was before the other wrote.
    def test_two_stewards_at_once_lose_nothing
      land = Store::Property.first
      plants = %w[himalayan_balsam kudzu].map { |key| Testing.plant(key) }
      first, second = Array.new(2) { Store::Property[land.id].tap(&:laid_down) }
      first.toggle_watch(plants.first)
      second.toggle_watch(plants.last)
      first.lay_down(plants.first, ["report"])
      second.lay_down(plants.last, [])

      assert_equal(plants, plants.select { |plant| land.refresh.watched?(plant) })
      assert_equal({ "himalayan_balsam" => ["report"], "kudzu" => [] }, Store::Property[land.id].laid_down)
    end

    # What is typed in the settings goes before what the country has; left empty, the country's counts again.
    def test_habits_can_be_said_otherwise
      land, = begin_land("Oyster bay", [-124.0, 49.05], "gorse")
      kept = { "name" => land.name, "units" => "metric", "stance" => "stem", "texture" => "loam" }
      send_form :post, "/records/settings", **kept, "currency" => "C$", "paper" => "a4", "grid" => "utm",
                                            "dates" => "day", "emergency_number" => "250 555 0100"

      assert_equal ["C$", "a4", "250 555 0100"],
                   [land.refresh.rates.currency, land.habits.paper, land.habits.emergency]
      assert_match %r{<html lang="en-GB">.*The year here: <b>12 May</b>}m, page("/identify")
      send_form :post, "/records/settings", **kept, "paper" => "vellum"

      assert_equal [422, "a4"], [last_response.status, land.refresh.habits.paper]
      send_form :post, "/records/settings", **kept

      assert_includes page("/records"), "By its place it lies in <b>Canada, west</b>"
      assert_match %r{<html lang="en-US">.*The year here: <b>May 12</b>}m, page("/identify")
      assert_equal ["$", "letter", "911"], [land.refresh.rates.currency, land.habits.paper, land.habits.emergency]
    end

    def test_soil_by_feel_is_kept_once_all_is_answered
      land, = begin_land("Karori gully", [174.745, -41.285], "tradescantia")
      assert_includes page("/season/pit"), "nobody looked whether water leaves it"
      send_form :post, "/season/pit", "ball" => "yes", "ribbon" => "short"

      assert_equal 422, last_response.status
      send_form :post, "/season/pit", "ball" => "yes", "ribbon" => "middle", "water" => "yes"

      assert_equal ["clay_loam", true], land.refresh.values.values_at(:texture, :poorly_drained)
      assert_match(/badly drained/, page("/season/pit"))
    end

    private

    # [property, patch]
    def begin_land(name, (east, north), plant)
      ring = [[0, 0], [0.004, 0], [0.004, 0.004], [0, 0.004], [0, 0]].map { |x, y| [east + x, north + y] }
      send_form :post, "/records/properties", "name" => name, "texture" => "loam",
                                              "geometry" => JSON.generate(type: "Polygon", coordinates: [ring])
      land = Store::Property.order(:id).last
      get("/?at=#{land.id}")
      send_form :post, "/survey/patches", "seen_on" => "2026-05-10", "plant_key" => plant, "sure" => "yes",
                                          "geometry" => JSON.generate(type: "Point",
                                                                      coordinates: [east + 0.001, north + 0.001])
      [land, land.live_patches.first]
    end

    def page(path) = get(path).body
  end
end
