# frozen_string_literal: true

require "test_helper"
require "rack/mock_request"

module Thistle
  # Pages that take a while go one at a time, a few wait, and light ones wait for none of them.
  class CostlyTest < Minitest::Test
    OUTLOOK = "/recheck/patches/1/outlook"

    def test_one_at_a_time_and_light_ones_beside
      gate, running, most = Queue.new, 0, 0
      app = Web::Costly.new(->(env) {
        next [200, {}, ["light"]] if env["PATH_INFO"] == "/find"
        next [503, {}, []] if env[Web::Costly::CROWDED]

        most = [most, running += 1].max
        gate.pop
        running -= 1
        [200, {}, []]
      }, waiting: 2, patience: 60)
      asked = Array.new(6) { Thread.new { Rack::MockRequest.new(app).get(OUTLOOK).status } }
      sleep 0.05 until asked.count { |one| !one.alive? } == 3 && running == 1

      assert_equal "light", Rack::MockRequest.new(app).get("/find").body
      3.times { gate << true }

      assert_equal [[200, 200, 200, 503, 503, 503], 1], [asked.map(&:value).sort, most]
    end

    def test_patience_ends_and_a_fault_frees_the_place
      faulty = Web::Costly.new(->(env) { env[Web::Costly::CROWDED] ? [503, {}, []] : raise("broken") })

      2.times { assert_raises(RuntimeError) { Rack::MockRequest.new(faulty).get(OUTLOOK) } }
      gate = Queue.new
      app = Web::Costly.new(->(env) {
        env[Web::Costly::CROWDED] ? [503, {}, []] : gate.pop && [200, {}, []]
      }, patience: 0)
      first = Thread.new { Rack::MockRequest.new(app).get(OUTLOOK).status }
      sleep 0.05 until gate.num_waiting == 1

      assert_equal 503, Rack::MockRequest.new(app).get("/mix/card.pdf").status
      gate << true

      assert_equal 200, first.value
    end

    # What is written while it is sent keeps the place until it is sent.
    def test_a_file_that_is_still_being_sent
      app = Web::Costly.new(->(env) { [env[Web::Costly::CROWDED] ? 503 : 200, {}, []] }, patience: 0)
      ask = -> { app.call("PATH_INFO" => "/survey/export/gpkg") }
      first, crowded = ask[], ask[].first
      first.last.close

      assert_equal [200, 503, 200], [first.first, crowded, ask[].first]
    end

    def test_which_they_are
      costly = %w[/survey/export/gpkg /survey/site-map.svg /replant/plans/3/plan.pdf /recheck/learned /decide/plan.json
                  /mix/records.pdf /replant/first /replant/mix]
      light = %w[/ /mix /mix/card /find /records /survey/list /work/days/3 /decide /survey/features
                 /identify/plants/kudzu]

      assert_equal [costly, []], [costly, light].map { |paths| paths.select { |path| Web::Costly.path?(path) } }
    end
  end
end
