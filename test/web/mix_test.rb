# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  class WebMixTest < RackTest
    def test_mix_in_us_units_and_its_errors
      id = Store::Property.first(prefix: "P").id
      answer = json("/mix.json?at=#{id}&vessel=jar&active=glyphosate_ipa&stock=41&target=20&stems=100&dose=1")["answer"]

      assert_in_delta 110 * Core::Units::ML_PER_FL_OZ * 20 / 41, answer["stock_ml"], 0.1
      get "/mix?stock=41&target=60"

      assert_includes last_response.body, "stronger than the stock"
      assert_includes last_response.body, 'value="60"'
      get "/mix.json?stems=many"

      assert_equal 422, last_response.status
    end

    # The arithmetic is shown, and so is what forbids it: no licence, a stance, water in reach of a product not made for
    # it.
    def test_a_mix_says_what_the_rules_hold_against_it
      get "/mix?patch=#{patch("P-05").id}"

      assert_said "Not on P-05 today", "No licensed applicator", "without herbicide"
      wet = patch("Q-10").update(water_m: 3.0)
      wet.property.update(aquatic_label: true)
      get "/mix?patch=#{wet.id}&active=glyphosate_ipa"

      assert_includes last_response.body, "not labelled for aquatic use"
      get "/mix?patch=#{wet.id}&active=glyphosate_ipa_aquatic"

      refute_includes last_response.body, "this product is not labelled"
    end
  end
end
