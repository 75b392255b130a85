# frozen_string_literal: true

require "test_helper"
require "support/web"

module Thistle
  # Forms read numbers as files do (Core::Decimal), by the habit of the property's units.
  class NumbersTest < RackTest
    def form(system, **typed)
      Web::Work::Forms::Treatment.new({ "done_on" => "2026-05-12", "method_key" => "hand_pull", "crew_size" => "2",
                                        "hours" => "2", **typed.transform_keys(&:to_s) },
                                      units: Core::Units.new(system), today: Testing::TODAY)
    end

    def test_forms_read_numbers_as_people_write_them
      assert_in_delta 2.5, form("metric", hours: "2,5", plants_done: "3").values[:hours]
      assert_equal 1200, form("metric", plants_done: "1 200").values[:plants_done]
      assert_equal 1200, form("us", plants_done: "1,200").values[:plants_done]
      doubtful = form("metric", plants_done: "1,200")

      assert_equal Core::Decimal::DOUBT, doubtful.error(:plants_done)
      assert_equal "1,200", doubtful[:plants_done], "what was typed stays"
    end
  end
end
