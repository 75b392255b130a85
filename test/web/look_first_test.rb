# frozen_string_literal: true

require "support/web"

module Thistle
  # Plant or wait, from looks and the years ahead.
  class WebLookFirstTest < RackTest
    def first(code) = json("/replant/first.json?patch=#{patch(code).id}")

    def look(**said)
      send_form(:post, "/recheck/checks", patch: patch("Q-06").id, checked_on: "2026-05-12", resprouts: "1",
                                          missed: "0", seedlings: "0", **said)
    end

    def test_from_a_question_to_an_answer
      assert_equal ["look", nil], first("Q-06").values_at("kind", "odds")
      look(natives: "many", cover_class: "1")
      many = first("Q-06")

      assert_equal "many", many["natives"]
      assert_operator many["odds"], :>, 0.5
      assert_operator many["look_on"], :>, "2026-05-12"
      look(checked_on: "2026-05-13", natives: "none")

      assert_equal 422, last_response.status, "not yet"
      get "/replant/first?patch=#{patch("Q-06").id}"

      assert_said "Natives close the ground before", "when leaves are full"
      get "/replant?patch=#{patch("Q-06").id}"

      assert_said "Plant or wait?"
    end

    def test_what_was_not_cleared_and_what_has_no_name
      get "/replant/first?patch=#{patch("Q-05").id}"
      standing = Store::Patch.where(state: "standing").exclude(plant_key: nil).first

      refute json("/replant/first.json?patch=#{standing.id}")["cleared"]
      get "/replant/first?patch=#{Store::Patch.where(plant_key: nil).get(:id)}"
      follow_redirect!

      assert_said "Name it first"
      assert_equal 404, get("/replant/first").status
    end
  end
end
