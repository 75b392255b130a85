# frozen_string_literal: true

require "rack/test"
require "test_helper"

module Thistle
  # A test that asks the application as a browser without scripts would.
  class RackTest < Minitest::Test
    include Rack::Test::Methods

    # A product as somebody types it from its label.
    LABEL = { name: "Our concentrate", form: "solution", active1: "glyphosate_ipa", percent1: "41", grams1: "479.3",
              most1: "8.9", use_cut_stump: "true", low_cut_stump: "50", high_cut_stump: "100", rainfast_h: "6",
              wind_low: "4", wind_high: "6", expires_on: "2027-03-31", counted: "2500" }.freeze

    def app = Testing.demo

    def setup
      Testing.demo(fresh: true)
      get "/find" # a light page, for its token
      @token = last_response.body[/name="csrf" content="([^"]+)"/, 1]
    end

    def send_form(verb, path, **fields)
      public_send(verb, path, { authenticity_token: @token, **fields })
    end

    def json(path)
      get path
      JSON.parse(last_response.body)
    end

    # A page without the room that its layout leaves between things.
    def last_response
      super.tap do |answer|
        next unless answer.media_type == "text/html" && !answer["content-encoding"]
        next if answer.singleton_methods.include?(:body)

        sent = answer.body
        close = close_up(sent)
        answer.define_singleton_method(:as_sent) { sent }
        answer.define_singleton_method(:body) { close }
      end
    end

    def close_up(text) = text.gsub(/\s+/, " ").gsub(/> | >/, ">").gsub(" <", "<")

    def assert_said(*texts) = texts.each { |text| assert_includes last_response.body, close_up(text) }

    def upload(bytes, name)
      Rack::Test::UploadedFile.new(StringIO.new(bytes), "application/octet-stream", original_filename: name)
    end

    def patch(code) = Testing.patch(code)

    private

    # Until the block is true, some minutes at most: it ends as soon as it is.
    def wait_for
      3000.times do
        return if yield

        sleep 0.1
      end
      flunk "it did not come"
    end
  end
end
