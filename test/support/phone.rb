# frozen_string_literal: true

require "support/line"

module Thistle
  module Testing
    # A phone in Chromium, at the end of a line that breaks as it is told.
    module Phone
      LONG = 600 # seconds that a slow machine may take over what is many requests

      def setup
        super
        @line = Testing::Line.new(page.server.port)
        Capybara.app_host = "http://127.0.0.1:#{@line.port}"
        resize "phone"
      end

      def teardown
        @line.set(:through)
        visit "/pocket"
        evaluate_async_script("Keep.empty({ records: true }).then(() => arguments[0]())")
        Capybara.app_host = nil
        @line.close_all
        super
      end

      def made_patch = Store::Patch.live.order(:id).last
      def patch = Testing.patch("Q-05")

      # The property at hand, with a work day where one is named.
      def take_along(day = nil)
        visit "/pocket"
        eventually { evaluate_script("Boolean(navigator.serviceWorker.controller)") }
        find("[data-pocket-day]").find("option[value='#{day.id}']").select_option if day
        click_button "Take along"

        assert_text(/pages, .* MB, as of/, wait: LONG)
      end
    end
  end
end
