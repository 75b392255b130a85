# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  class WebWorkTest < RackTest
    def today = Testing::TODAY

    def test_work_needs_its_herbicide_record
      id = patch("Q-04").id
      fields = { patch: id, method_key: "cut_stump", done_on: "2026-05-12", crew_size: "2", hours: "1.5",
                 stems_done: "20" }
      send_form :post, "/work/treatments", **fields

      assert_said "is needed: who applied it", "how much stock was used"
      send_form :post, "/work/treatments", **fields, active_key: "glyphosate_ipa", product: "30", mix: "20",
                applicator: "M. Oakes"

      assert_includes last_response.body, "more than the mix"
      send_form :post, "/work/treatments", **fields, done_on: "2024-01-01", active_key: "glyphosate_ipa", product: "30",
                applicator: "M. Oakes"

      assert_includes last_response.body, "before the patch was first seen"
      assert_empty patch("Q-04").treatments
      send_form :post, "/work/treatments", **fields, active_key: "glyphosate_ipa", product: "30", mix: "60",
                applicator: "M. Oakes"

      assert_equal [303, 30.0], [last_response.status, patch("Q-04").treatments.first.product_ml]
    end

    def test_work_on_another_day_keeps_that_days_weather
      work = patch("Q-06").treatments.last
      form = Web::Work::Forms::Treatment.of(work, Core::Units.new, today)
      send_form :post, "/records/treatment/#{work.id}", **form.raw, done_on: "2026-04-02", version: "0",
                person: "J. Finch", reason: "A day off"
      day = work.patch.property.site(today).day(Date.new(2026, 4, 2))

      assert_equal [day.tmax, day.rain], work.refresh.conditions.values_at("tmax", "rain_mm")
      assert_equal "2026-04-02", work.patch.open_tasks.first.since_on.iso8601
      assert_in_delta work.amendments.first.values_before[:hours], work.hours, 1e-9, "what nobody touched is as it was"
    end

    # Broad values are of no day: no record holds them as if somebody had measured them, nor does an older one show
    # them.
    def test_weather_that_nobody_knows_is_not_written_down
      treated = patch("Q-04")
      treated.property.update(feed: "broad")
      send_form :post, "/work/treatments", patch: treated.id, method_key: "lever_pull", done_on: "2026-05-12",
                crew_size: "2", hours: "1", stems_done: "4", started_at: "09:00", ended_at: "11:00"
      work = Store::Treatment.order(:id).last

      assert_equal [{ "standing" => "usual" }, nil], [JSON.parse(work.weather), work.hourly_weather]
      work.update(weather: '{"tmin":3,"tmax":16,"wind_km_h":17,"rain_mm":2.94,"standing":"regional"}')
      get "/survey/patches/#{treated.id}"

      assert_said "Nobody measured the weather of that day."
      refute_includes last_response.body, "17 km/h"
    end
  end
end
