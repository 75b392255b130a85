# frozen_string_literal: true

require "nokogiri"
require "support/web"
require_relative "../formats/image_test"

module Thistle
  class WebIdentifyTest < RackTest
    def test_what_was_seen_is_kept_unsettled_until_it_decides
      id = patch("Q-11").id
      send_form :post, "/identify/observations", patch: id, c: { habit: "vine", leaf_margin: "toothed" }

      assert_equal ["reported", 2], [patch("Q-11").state, patch("Q-11").observations.size]
      seen = { habit: "vine", climbs_by: "twining", leaf_margin: "toothed", flower_cluster: "axils",
               flower_colour: "green", leaf_shape: "round",
               root_colour: "orange", leaf_length: "8", leaf_arrangement: "alternate", leaf_type: "simple" }
      send_form :post, "/identify/observations", patch: id, c: seen

      assert_equal %w[standing oriental_bittersweet], [patch("Q-11").state, patch("Q-11").plant_key]
      send_form :post, "/identify/observations", patch: id, c: { habit: "" }

      assert_equal 422, last_response.status
    end

    # Somebody who is sure names a patch in one step; what is new here is still reported first; it can be put right.
    def test_an_expert_names_a_patch_in_one_step
      id, on = patch("Q-11").id, { patch: patch("Q-11").id, named_on: "2026-05-11", people: "R. Lindqvist" }
      get "/identify?patch=#{id}"

      assert_said "Sure of the name?"
      [{ plant_key: "" }, { plant_key: "nothing" }, { named_on: "2026-05-13" }, { people: "" }].each do |wrong|
        send_form :post, "/identify/names", plant_key: "oriental_bittersweet", **on, **wrong

        assert_equal [422, "reported"], [last_response.status, patch("Q-11").state], wrong
      end
      send_form :post, "/identify/names", **on, plant_key: "oriental_bittersweet", note: "By the orange root."
      seen = patch("Q-11").observations.last

      assert_equal %w[standing oriental_bittersweet], [patch("Q-11").state, patch("Q-11").plant_key]
      assert_equal [true, "R. Lindqvist", Date.new(2026, 5, 11)], [seen.settled, seen.people, seen.seen_on]
      refute_includes get("/identify?patch=#{id}").body, "Sure of the name?"
      send_form :post, "/records/observation/#{seen.id}/take-back", version: "0", person: "J. Finch", reason: "No"

      assert_equal "reported", patch("Q-11").state
    end

    # On arrival: what is mapped here, else the weeds of the region that is asked for; gone with the first answer.
    def test_what_matters_here_stands_there_on_arrival
      cards = ->(address) do
        Nokogiri::HTML5(get(address).body).css(".matters-here").map { |card| [card.at_css("h3").text, card.text] }
      end
      here = cards["/identify"]
      mapped = Store::Property.first(prefix: "Q").live_patches.exclude(plant_key: nil).select_map(:plant_key)
      names = mapped.map { |key| Core::Knowledge.shipped.plant(key).name }

      assert_equal 6, here.size
      assert(here.all? { |name, text| names.include?(name) && text.include?("mapped here") })
      there = cards["/identify?where=australia"].map { |name, _| name }
      weeds = Core::Knowledge.shipped.plants.values.select { |plant| plant.weed_in?("australia") }.map(&:name)

      assert_equal [6, []], [there.size, there - weeds]
      assert_empty cards["/identify?c[habit]=vine"]
    end

    # A bush honeysuckle, whichever of four: settled as a group, worked as the likeliest, narrowed later.
    def test_plants_that_are_handled_alike_settle_as_one_name
      id = patch("Q-11").id
      seen = { habit: "shrub", leaf_arrangement: "opposite", leaf_margin: "smooth", bark: "shaggy", pith: "hollow",
               flower_colour: "white", leaf_type: "simple", petals: "lipped", twig: "brown", thorns: "none",
               fruit_colour: "red" }
      address = seen.map { |key, state| "c[#{key}]=#{state}" }.join("&")
      get "/identify?patch=#{id}&#{address}"

      assert_said "Settled: a bush honeysuckle, whichever of the four"
      assert_equal "bush_honeysuckles", json("/identify.json?#{address}").dig("group", "key")
      send_form :post, "/identify/observations", patch: id, c: seen
      kept = patch("Q-11")

      assert_equal %w[standing bush_honeysuckles], [kept.state, kept.group_key]
      get "/survey/patches/#{id}"

      assert_said "Bush honeysuckle, Q-11", "all are handled alike", "Narrow it down"
      get "/?all=1"

      assert_match(/Bush honeysuckle,<span class="code">Q-11/, last_response.body)
      get "/decide?patch=#{id}"

      assert_said "Bush honeysuckle,", "whichever of the four: worked as"
      # One who knows says which: the group gives way to the plant.
      Store::Observation.told(kept, seen_on: kept.seen_on, plant_key: "amur_honeysuckle", settled: true)

      assert_nil patch("Q-11").group
    end

    # Last autumn's photographs, and someone else's continent: the day and the region go along in the address.
    def test_a_plant_is_keyed_for_another_day_and_place
      seen = "c[habit]=tree&c[leaf_type]=pinnate&c[leaf_arrangement]=opposite&c[twig]=green&c[fruit]=wing" \
             "&c[bark]=furrowed&c[leaf_margin]=toothed"
      there, here = ["&on=2025-04-04&where=australia", ""].map { |query| json("/identify.json?#{seen}#{query}") }

      assert_equal %w[2025-04-04 australia], there.values_at("date", "region")
      assert_equal %w[2026-05-12 na_midwest], here.values_at("date", "region")
      page = get("/identify?#{seen}&on=2025-04-04&where=australia").body

      assert_match(/Boxelder.*tag clay.>invasive/m, page)
      refute_includes page, "It belongs here"
      assert_includes page, "April 4, 2025 in Australia"
      get "/identify?#{seen}&on=1850-01-01&where=mars"

      assert_said "A day of the last ten years", "Choose a region of the list"
      send_form :post, "/identify/observations", patch: patch("Q-11").id, on: "2025-04-04", where: "australia",
                c: { habit: "tree" }

      assert_equal 422, last_response.status
    end

    # A sheet for a specialist, with a photograph that knows where it was taken; the answer settles the patch.
    def test_a_report_goes_out_and_its_answer_settles_the_patch
      send_form :post, "/identify/reports", patch: patch("Q-11").id, c: { habit: "vine", leaf_margin: "toothed" }
      report = Store::Report.last
      path = "/identify/reports/#{report.id}"
      upload = ->(bytes, name) do
        Rack::Test::UploadedFile.new(StringIO.new(bytes), "image/jpeg", true, original_filename: name)
      end
      send_form :post, "#{path}/photos", photos: [upload.call("not a picture", "notes.jpg")]

      assert_equal 422, last_response.status
      assert_includes last_response.body, "“notes.jpg” is not a JPEG or PNG picture"
      send_form :post, "#{path}/photos", photos: [upload.call(ImageTest.jpeg, "leaf.jpg")], place: "true"
      send_form :post, "#{path}/photos", photos: [upload.call(ImageTest.jpeg, "bare.jpg")]
      bare = Store::Photo.last

      assert_equal [nil] * 4, bare.values.values_at(:taken_on, :latitude, :longitude, :direction), "it was not wanted"
      assert_equal [ImageTest.jpeg(exif: false)] * 2, report.photos_dataset.select_map(:bytes)
      get path

      assert_said "looking south-west"
      get "/identify/photos/#{report.photos.first.id}"

      refute_includes last_response.body, "Exif"
      assert_equal "image/jpeg", last_response.media_type

      row = CSV.parse(get("#{path}/occurrence.csv").body, headers: true).first

      assert_equal ["2026-05-12", "unverified", "what kind of plant: vine; leaf edge: toothed"],
                   row.values_at("eventDate", "identificationVerificationStatus", "occurrenceRemarks")
      assert_in_delta patch("Q-11").shape.centre.last, row["decimalLatitude"].to_f, 1e-5
      send_form :post, "#{path}/answer", answer_key: "oriental_bittersweet", answered_on: "2026-05-30", answered_by: ""

      ["is in the future", "must be filled|is missing"].each { |text| assert_match(/#{text}/, last_response.body) }
      send_form :post, "#{path}/answer", answer_key: "oriental_bittersweet", answered_on: "2026-05-12",
                answered_by: "R. Lindqvist"

      assert_equal %w[standing oriental_bittersweet], [patch("Q-11").state, patch("Q-11").plant_key]
      assert_equal ["oriental_bittersweet", nil], json("#{path}.json").values_at("answer", "answer_note")
      assert_includes get("/identify/reports").body, "named by R. Lindqvist"
    end

    def test_a_report_without_a_place_takes_the_photographs_place
      send_form :post, "/identify/reports", c: { habit: "vine" }
      report = Store::Report.last

      assert_nil report.latitude
      report.attach(Formats::Image.new("leaf.jpg", ImageTest.jpeg))

      assert_in_delta 38.0012, report.latitude, 1e-6
    end

    # Common and scientific names, synonyms, misspellings, a code; nothing for nonsense.
    def test_plants_are_found_by_any_name_and_misspelled
      found = ->(query) { json("/find.json?q=#{CGI.escape(query)}")["plants"].map { |row| row["key"] } }

      names = { "bittersweet" => "oriental_bittersweet", "lonicera maackii" => "amur_honeysuckle",
                "Polygonum cuspidatum" => "japanese_knotweed",
                "creeping charlie" => "ground_ivy", "japaneese knotwede" => "japanese_knotweed",
                "buckthron" => "common_buckthorn", "ailanthis" => "tree_of_heaven",
                "garlick mustard" => "garlic_mustard" }

      names.each { |query, key| assert_includes found.call(query).first(4), key, query }
      assert_empty found.call("zzxxqq") + found.call("%") + found.call("")
      assert_includes json("/find.json?q=q-0")["patches"].map { |row| row["code"] }, "Q-01"
    end

    # A plant that is watched for here is reported before anything is removed; a report opens the rest again.
    def test_what_is_new_here_is_reported_first
      id = patch("Q-04").id
      verdicts = -> { json("/decide.json?patch=#{id}&soil=moist")["verdicts"] }
      going = -> { verdicts.call.select { |one| one["verdict"] == "go" }.map { |one| one["method"] } }

      assert_includes going.call, "hand_pull"
      send_form :post, "/identify/plants/amur_honeysuckle/watch"

      assert_equal ["report_only"], going.call - %w[seed_collect tag_and_return]
      assert_includes get("/identify/plants/amur_honeysuckle").body, "report it before anyone removes it"
      send_form :post, "/identify/reports", patch: id, c: { habit: "shrub", pith: "hollow" }

      assert_includes going.call, "hand_pull"
      assert_includes get("/identify/plants/gamba_grass").body, "has no record of this plant in North America, middle"
    end

    def test_what_cannot_be_read_is_refused_in_words
      ["/identify?c[habit]=%FF", "/identify?c[leaf_length]=%FF", "/find?q=%FF%FE", "/decide?plant=%C3"].each do |path|
        get path

        assert_equal 400, last_response.status, path
        assert_includes last_response.body, "no text"
      end
      odd = { "/identify?c[nose]=long" => "not a character", "/identify?c[pith]=blue" => "not a state",
              "/identify?not[pith][]=blue" => "not a state" }
      odd.each do |path, words|
        get path

        assert_equal 422, last_response.status, path
        assert_includes last_response.body, words
      end
      assert_equal [404, 404], ["/identify/duel/kudzu/kudzu", "/identify/reports/999"].map { |path| get(path).status }
    end

    def test_numbers_are_typed_in_the_propertys_units_and_refused_in_words
      metric = json("/identify.json?c[leaf_length]=7.62&in=metric")
      inches = json("/identify.json?c[leaf_length]=3&in=us")

      assert_equal metric["candidates"], inches["candidates"]
      get "/identify?c[habit]=shrub&c[leaf_length]=long"

      assert_includes last_response.body, "“long” is not a number"
      assert_includes last_response.body, 'value="long"'
      assert_equal({ "shrub" => 1 }, json("/identify.json?c[habit]=shrub&c[pith]=unknown")["observed"].values.tally)
    end

    # Every state of every character has a drawing of its own, light enough for a phone.
    def test_every_state_is_drawn
      drawings = Web::Identify::Glyphs.drawings
      states = Core::Knowledge.shipped.characters.values.reject(&:measured?)
                              .flat_map { |c| c.states.keys.map { |state| "#{c.key}-#{state}" } }

      assert_empty states - drawings.keys
      groups = drawings.group_by { |id, _| id[/\A\w+/] }.values
      alike = groups.flat_map { |group| group.group_by(&:last).values }.select { |same| same.size > 1 }
      alike = alike.map { |same| same.map(&:first) }

      assert_empty alike
      sprite = get("/img/glyphs.svg").body

      assert_empty Nokogiri::XML(sprite).errors
      assert_operator sprite.bytesize, :<, 200_000
    end

    # A plant page says how it lives, comes back, travels, where, what backfires; in inches where the property says so.
    def test_a_plant_page_tells_the_whole_plant
      page = Nokogiri::HTML(get("/identify/plants/himalayan_blackberry").body).text.squeeze

      ["sprouts from the crown, roots where stems touch the ground", "by birds and other animals",
       "A weed in North America, California; Australia, south and east; Britain and Ireland; Western Europe; ",
       "Methods that make it worse",
       "10 to 22 cm", "also Armenian blackberry"].each { |text| assert_includes page, text.squeeze }
      get "/?at=#{Store::Property.first(units: "us").id}"

      assert_includes get("/identify/plants/himalayan_blackberry").body, "3.94 to 8.66 in"
    end

    def test_practice_is_kept_by_person
      send_form :post, "/identify/practice/person", person: "T. Abara"
      card = json("/identify/practice.json")

      assert_equal 4, card["options"].size
      send_form :post, "/identify/practice", answer: "nonsense"

      assert_equal 422, last_response.status
      send_form :post, "/identify/practice", answer: card["options"].keys.first

      assert_match(/Right|Not this time/, last_response.body)
      row = Store::Practised.last

      assert_equal ["T. Abara", card["options"].keys.first, Testing::TODAY], [row.person, row.answer_key, row.on]
      moves = json("/identify/practice.json?kind=method&next=1")["options"]

      assert_includes 2..4, moves.size
      send_form :post, "/identify/practice", kind: "method", answer: moves.keys.first

      assert_match(/The verdict is<b>(go|wait|no)/, last_response.body)
      told = Core::Knowledge.shipped.removal(moves.keys.first)
                            .cautions.map { |key| Core::Knowledge.shipped.cautions[key]["text"] }

      told.each { |text| assert_includes last_response.body, Rack::Utils.escape_html(text) }
    end
  end
end
