# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  class WebReplantTest < RackTest
    # By hand: 100 m² of plugs 30 cm apart in squares is 1 112 (rounded up); the window is the next one at the site.
    def test_a_planting_is_planned
      id = patch("Q-04").id
      send_form :post, "/replant/plantings", patch: id, native: "plantain_leaved_sedge", area: "100", grid: "square"
      planting = patch("Q-04").plantings.first

      assert_equal [1112, Testing.site.year.date(:last_frost)], [planting.plugs, planting.from_on]
      send_form :post, "/replant/plantings", patch: id, native: "lyre_leaf_sage", area: "100", purity: "90",
                germination: "80"

      assert_in_delta 100 * 600 / 550.0 / 0.72, patch("Q-04").plantings.last.seed_g, 1e-9
      send_form :post, "/replant/plantings", patch: id, native: "tanglehead", area: "100"

      assert_equal 422, last_response.status
      get "/replant?patch=#{id}&germination=0"

      assert_includes last_response.body, "above 0 and at most 100"
    end
  end
end
