# frozen_string_literal: true

require "csv"
require "nokogiri"
require "support/web"

module Thistle
  # Herbicide on the record: what it must say, what its label holds against it, what it closes.
  class WebMixRecordsTest < RackTest
    TYPED = LABEL

    def q = Store::Property.first(prefix: "Q")
    def product = Store::Product.last

    # On the list of people, with a licence: who applies is asked for there.
    def setup
      super
      Store::Person.create(name: "Walker", roles: "[]", training: "[]", cannot: "[]",
                           licence_expires_on: Date.new(2027, 1, 1))
    end

    # From the work to a complete record: what is missing is said, on Today too; completed as a correction; a table.
    def test_the_record_that_the_law_wants
      send_form(:post, "/mix/shelf", at: q.id, **TYPED, registration: "=QH-41")
      q.update(record_rule: "strict")
      work = { patch: patch("Q-05").id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2", hours: "1",
               product_id: product.id, product: "100", mix: "200", applicator: "Walker", stems_done: "60",
               area: "300" }
      send_form(:post, "/work/treatments", **work, started_at: "11:00", ended_at: "09:00", left_over: "900")

      assert_said "is before it began", "is more than the mix"
      send_form(:post, "/work/treatments", **work, started_at: "09:00", ended_at: "11:30", licence_number: "C-7")
      record = json("/mix/records.json?person=Walker")["records"].first

      assert_equal %w[category expiry equipment left_over], record["missing"]
      assert_equal [9, 10, 11], record["weather"].map { |one| one["at"] }
      get "/"

      assert_said "Herbicide records to complete"
      id = record["id"]
      get "/records/treatment/#{id}"
      form = Nokogiri::HTML5(last_response.body).at_css("form[action='/records/treatment/#{id}']")
      fields = form.css("input[name], textarea[name]").to_h { |one| [one["name"], one["value"] || one.text] }
      form.css("select[name]").each { |one| fields[one["name"]] = one.at_css("[selected]")&.[]("value").to_s }
      send_form(:post, "/records/treatment/#{id}", **fields.except("authenticity_token").transform_keys(&:to_sym),
                licence_category: "natural areas", licence_expires_on: "2027-01-01", equipment: "jar", left_over: "0",
                person: "Walker", reason: "completed the same day")

      assert_equal 303, last_response.status, last_response.body[/bad-word.*/]
      assert_empty json("/mix/records.json?person=Walker")["records"].first["missing"]
      table = CSV.parse(get("/mix/records/file?year=2026&person=Walker").body, headers: true)

      assert_equal ["2026-05-12", "'=QH-41", "natural areas", ""],
                   table.first.values_at("date", "registration", "category", "missing")
      assert_equal 1, Store::Amendment.where(kind: "treatment", record_id: id).count
      assert_equal "%PDF", get("/mix/records.pdf?person=Walker").body[0, 4]
      assert_includes last_response.body, "/MediaBox [0 0 792 612]"
    end

    # Two products from the bench into one record, its weather measured by hand; all of it in the table.
    def test_a_tank_of_two_on_the_record
      %w[One Two].each { |name| send_form(:post, "/mix/shelf", at: q.id, **TYPED, name:) }
      one, two = Store::Product.where(name: %w[One Two]).order(:name).all
      get "/mix?patch=#{patch("Q-05").id}&product=#{one.id}&second=#{two.id}"
      link = Nokogiri::HTML5(last_response.body).at_css("a[href^='/work?']")["href"]
      get link
      typed = Nokogiri::HTML5(last_response.body).css("[name=second_product], [name=second_product_id] [selected]")

      assert_equal two.id.to_s, typed.find { |node| node.name == "option" }["value"]
      assert_operator typed.find { |node| node.name == "input" }["value"].to_f, :>, 0
      work = { patch: patch("Q-05").id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2", hours: "1",
               stems_done: "9", product_id: one.id, product: "50", mix: "100", applicator: "Walker",
               middle_temperature: "21", middle_wind: "7" }
      send_form(:post, "/work/treatments", **work, second_product_id: one.id, second_product: "60",
                                                   end_humidity: "120")

      assert_said "is the same as the first", "is more than the mix it went into", 'aria-label="End: humidity"'
      send_form(:post, "/work/treatments", **work, second_product_id: two.id, second_product: "25")

      assert_equal 303, last_response.status
      row = CSV.parse(get("/mix/records/file?person=Walker").body, headers: true).first

      assert_equal ["One", "50.0", "Two", "25.0", "–; 21 °C 7 km/h (by hand); –"],
                   row.values_at("product", "product_amount", "second_product", "second_amount", "weather")
      Store::Treatment.last.take_back(version: 0, person: "Walker", reason: "another day")
      get "/records/treatment/#{Store::Treatment.last.id}"

      assert_said "One", "second product", "21 °C 7 km/h", "weather, by hand"
    end

    # Weaker than the label has it, past its day, by a licence that had run out: kept, and said on the patch.
    def test_a_record_that_breaks_the_label_is_kept_and_marked
      send_form(:post, "/mix/shelf", at: q.id, **TYPED, expires_on: "2026-01-31")
      send_form(:post, "/work/treatments", patch: patch("Q-05").id, method_key: "cut_stump", done_on: "2026-05-12",
                                           crew_size: "2", hours: "1", product_id: product.id, product: "40",
                                           mix: "200", applicator: "Walker", stems_done: "60", started_at: "09:00",
                                           ended_at: "11:00", start_wind: "14", start_temperature: "20",
                                           licence_expires_on: "2026-03-01")

      assert_equal 303, last_response.status
      follow_redirect!

      assert_said "20 % of product is outside the label", "Our concentrate had expired.",
                  "The applicator was no longer licensed.",
                  "Wind at the start was 14 km/h; the label of Our concentrate allows at most 6 km/h."
    end

    # By hand: 12 hours on the 12th keep people out through the 13th, 30 days keep planting off until 11 June. Plants
    # times stems a plant are what is mixed for.
    def test_what_a_label_closes_and_how_many_stubs
      send_form(:post, "/mix/shelf", at: q.id, **TYPED, reentry_h: "12", plant_back_days: "30")
      id = patch("Q-05").id
      send_form(:post, "/work/treatments", patch: id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2",
                                           hours: "1", product_id: product.id, product: "10", mix: "20",
                                           applicator: "Walker", stems_done: "60")
      follow_redirect!

      assert_said "Nobody goes in until May 13, 2026", "Nothing is planted until June 11, 2026"
      get "/replant?patch=#{id}"

      assert_said "Nothing is planted here until June 11, 2026"
      later = Testing.planting_plan("Q-05").plantings.map(&:from_on)

      assert_operator later.min, :>, Date.new(2026, 6, 11), "no window before the label lets it"
      q.update(record_rule: "us_federal")
      calendar = get("/season/calendar.ics").body

      ["Nobody goes in: Q-05", "Nothing is planted: Q-05", "Record of herbicide: Q-05"].each do |title|
        assert_includes calendar, "SUMMARY:#{title}"
      end
      assert_in_delta 12 * 7.5, json("/mix.json?plants=12&each=7,5&dose=1 mL")["answer"]["total_ml"]
      assert_match(/no volume/, json("/mix.json?dose=1 lb")["errors"]["dose"])
      assert_equal "hack_and_squirt", json("/mix.json?method=hack_and_squirt")["method"]
      assert_equal "foliar_tussock", json("/mix.json?vessel=tank&method=foliar_tussock")["method"]
    end
  end
end
