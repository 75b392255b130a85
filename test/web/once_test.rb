# frozen_string_literal: true

require "support/web"
require "nokogiri"

module Thistle
  # A form that is sent twice makes one record, whoever was slow: the hand, the line or the server.
  class OnceTest < RackTest
    VISIT = { kind: "check", reason: "sent twice", wait: "date", due_on: "2026-06-12" }.freeze

    def key = SecureRandom.hex(12)
    def visit(once, **how) = send_form(:post, "/recheck/tasks", patch: patch("Q-05").id, once:, **VISIT, **how)
    def visits = Store::Task.where(reason: "sent twice").count

    def test_every_form_carries_a_key
      pages = %w[/work/people /survey/patches/new /recheck /mix/shelf/new /replant/seed /season /decide/plan /records]
      forms = pages.flat_map do |page|
        get page
        Nokogiri::HTML5(last_response.body).css("form[method=post]")
      end
      keys = forms.map { |form| form.at_css("[name=once]")&.[]("value") }

      assert_operator keys.size, :>, 8
      assert_equal keys.size, keys.grep(Web::Once::FORM).uniq.size
    end

    def test_the_second_is_led_where_the_first_led
      once = key
      places = Array.new(2) { visit(once).location }

      assert_equal [1, 1], [visits, places.uniq.size]
      visit(once, due_on: "2026-06-13")

      assert_equal 2, visits, "filled in otherwise it is another"
      visit(key)

      assert_equal 3, visits, "and so is another page's form"
    end

    def test_what_was_refused_may_be_sent_again
      once = key
      2.times { assert_equal 422, visit(once, due_on: "no day").status }
      assert_equal [0, 0], [visits, Store::SentForm.count]
    end

    # Eight at the same moment, as an impatient hand sends them.
    def test_at_the_same_moment
      get "/find"
      env = last_request.env.slice("HTTP_COOKIE",
                                   "HTTP_HOST").merge("CONTENT_TYPE" => "application/x-www-form-urlencoded")
      input = URI.encode_www_form(authenticity_token: @token, once: key, patch: patch("Q-05").id, **VISIT)
      answers = Array.new(8) do
        Thread.new { Rack::MockRequest.new(app).post("http://example.org/recheck/tasks", input:, **env) }
      end.map(&:value)

      assert_equal [[303], 1], [answers.map(&:status).uniq, visits]
      assert_equal 1, answers.map { |answer| answer["location"] }.uniq.size
    end

    # A server that stopped in the middle holds nobody up; one that works on it does.
    def test_a_first_that_was_cut_off
      claim = ->(**how) { Store::SentForm.new(key: "k", pid: 1, boot: Store::Job.boot, since: Store::Job.clock, **how) }

      refute_predicate claim[], :cut_off?
      assert_predicate claim[since: Store::Job.clock - 121], :cut_off?
      assert_predicate claim[boot: "another"], :cut_off?
      refute_predicate claim[since: 0, place: "/work"], :cut_off?
    end
  end
end
