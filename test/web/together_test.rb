# frozen_string_literal: true

require "support/web"

module Thistle
  # Several people on one land: what is said, who takes what, what is new, and who did what.
  class TogetherTest < RackTest
    def look_as(name)
      get "/glossary"
      send_form_as last_response, "/account/look-as", account: Store::Account.first(name:).id
    end

    def send_form_as(page, path, **fields)
      post path, { authenticity_token: page.body[/name="csrf" content="([^"]+)"/, 1], **fields }
    end

    # Named with @, it stands under what is new; what is for staff is read by staff alone; taken back, it is gone.
    def test_a_comment_is_said_found_and_taken_back
      look_as("J. Finch")
      patch = patch("Q-02")
      get "/glossary"
      send_form_as last_response, "/comments", patch: patch.id, body: "@R. Lindqvist: north side? <b>now</b>"
      get "/glossary"
      send_form_as last_response, "/comments", patch: patch.id, body: "The neighbour is cross.", for_staff: "yes"
      look_as("R. Lindqvist")
      get "/"

      assert_said "Since you were here", "@R. Lindqvist: north side? &lt;b&gt;now&lt;/b&gt;"
      get "/survey/patches/#{patch.id}"

      assert_said "north side?"
      refute_includes last_response.body, "cross"
      refute_includes last_response.body, "/comments/1/drop", "it is not theirs"
      get "/glossary"
      send_form_as last_response, "/comments/1/drop"

      assert_equal 404, last_response.status
      look_as("J. Finch")
      get "/survey/patches/#{patch.id}"

      assert_said "The neighbour is cross."
      get "/glossary"
      send_form_as last_response, "/comments/1/drop"

      assert_equal 303, last_response.status
    end

    # A visit is given; what others did since is counted until it is seen; the letter says the same.
    def test_what_is_new
      task = Store::Task.due(through: Date.new(2026, 12, 1)).where(property_id: patch("Q-02").property_id).first
      lindqvist = Store::Account.first(name: "R. Lindqvist")
      get "/glossary"
      send_form_as last_response, "/recheck/tasks/#{task.id}/assign", account: lindqvist.id
      send_form :post, "/survey/patches/#{patch("Q-01").id}/taken", account: lindqvist.id
      send_form :post, "/replant/water", patch: patch("Q-05").id
      look_as("R. Lindqvist")
      get "/"

      assert_said ">Q-01</a></li>", "You take <a", "<b>M. Oakes</b> added 1 watering, Quillback Hollow preserve"
      assert Web::Accounts::Weekly.new(Date.new(2026, 5, 18)).write(lindqvist)
      assert_includes Store::Letter.last.body, "M. Oakes added 1 watering."
      assert_includes Store::Letter.last.body, "You take #{task.patch.code}, due"
      get "/"
      send_form_as last_response, "/account/seen", last: last_response.body[/name="last" value="(\d+)"/, 1]
      get "/"

      refute_includes last_response.body, "added 1 watering"
    end

    # Monday's letter goes once, to those who want it.
    def test_the_weekly_letter_goes_once
      Store::Account.first(name: "J. Finch").update(weekly: true)
      send_form :post, "/replant/water", patch: patch("Q-05").id

      assert_equal [0, 1, 0], [17, 18, 18].map { |day| Web::Accounts::Weekly.new(Date.new(2026, 5, day)).call }
    end

    # Every change has its who, files taken out too; it only grows; a steward reads it and takes it along.
    def test_the_trail
      patch = patch("Q-04")
      send_form :delete, "/survey/patches/#{patch.id}"
      send_form :post, "/survey/changes/#{Store::Change.last.id}/undo"
      get "/survey/export/geojson"
      rows = json("/trail.json")["trail"].map { |row| row.values_at("who", "act", "kind", "number") }
      oakes = "M. Oakes"

      assert_equal [oakes, "took out", "file", nil], rows.first
      assert_includes rows, [oakes, "took back", "patch", patch.id]
      assert_includes rows, [oakes, "brought back", "patch", patch.id]
      error = assert_raises(Sequel::DatabaseError) { Store::Acting.as(1) { Store::Trail.dataset.delete } }

      assert_match(/only grows/, error.message)
      get "/trail/file?kind=patches"

      assert_equal 3, last_response.body.lines.size
      look_as("J. Finch")

      assert_equal 404, get("/trail").status
    end

    # An import that goes on in the background is still whoever's who asked for it.
    def test_work_in_the_background_is_somebodys
      zone = Store::Property.first(prefix: "Q")
      text = "name,latitude,longitude,species\nZ,38.001,-91.402,garlic mustard\n"
      send_form :post, "/survey/arrivals", at: zone.id, file: upload(text, "z.csv")
      arrival = Store::Arrival.last
      wait_for { arrival.refresh.status == "draft" }
      send_form :post, "/survey/arrivals/#{arrival.id}/take"
      wait_for { arrival.refresh.status == "taken" }

      assert_equal [1], Store::Trail.where(kind: "patches", act: "added").select_map(:account_id).uniq
    end

    # What a landowner lets people do stands where the work is planned; without it, the question does.
    def test_a_landowner_gives_permission
      bluff = Store::Property.first(prefix: "B")

      assert_said "No permission for today is on record. Ask L. Tran" if get("/work?at=#{bluff.id}")
      look_as("L. Tran")
      get "/permission"
      asked = { person: "L. Tran", from_on: "2026-05-01", until_on: "2026-04-01", herbicide: "no",
                note: "Close the gate." }
      send_form_as last_response, "/permission", **asked

      assert_equal 422, last_response.status
      assert_said "is before it begins", "Close the gate."
      send_form_as last_response, "/permission", **asked, until_on: "2026-10-31"

      assert_equal 303, last_response.status
      look_as("M. Oakes")
      get "/work?at=#{bluff.id}"

      assert_said "<b>Permission</b> of L. Tran until October 31, 2026, without herbicide", "Close the gate."
      look_as("R. Lindqvist")

      assert_equal 404, get("/permission").status
    end

    # A herbicide record wants somebody who is licensed on its day, by the list of people.
    def test_herbicide_by_whoever_is_licensed_that_day
      work = { patch: patch("Q-05").id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "1", hours: "1",
               active_key: "glyphosate_ipa", product: "10", stems_done: "9", licence_number: "typed",
               licence_expires_on: "2030-01-01" }
      answers = ["R. Lindqvist", "Nobody Known", "m. oakes"].map do |applicator|
        send_form(:post, "/work/treatments", **work, applicator:)
        [last_response.status, last_response.body.include?("is not licensed on that day")]
      end

      assert_equal [[422, true], [422, true], [303, false]], answers
      send_form(:post, "/work/treatments", **work, licence_number: "", licence_expires_on: "", hours: "1.5",
                                                   applicator: "R. Lindqvist", supervisor: "M. Oakes")
      under = Store::Treatment.last

      assert_equal ["R. Lindqvist, under M. Oakes", "MA-2291"], [under.applied_by, under.licence_number]
      Store::Person.first(name: "M. Oakes").update(licence_expires_on: Date.new(2026, 5, 11))
      send_form(:post, "/work/treatments", **work, applicator: "M. Oakes", hours: "2")

      assert_equal 422, last_response.status
    end

    # Fifty properties: one turns to another by its name.
    def test_many_properties
      first = Store::Property.first
      account = Store::Account.first
      48.times do |n|
        made = Store::Property.create(**first.values.except(:id, :calendar_token), name: "Ground #{n}", prefix: "G#{n}")
        Store::Membership.give(account, made, "steward")
      end
      get "/survey?place=#{CGI.escape("Ground 31")}"

      assert_said "<summary>Ground 31</summary>", '<datalist id="all-places">'
    end
  end
end
