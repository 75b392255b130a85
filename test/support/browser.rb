# frozen_string_literal: true

require "axe/configuration"
require "capybara/dsl"
require "capybara/minitest"
require "selenium-webdriver"
require "test_helper"

module Thistle
  # The real interface in real headless Chromium.
  module Browser
    SIZES = { "desk" => [1280, 800], "phone" => [390, 844] }.freeze
    FLAGS = %w[--headless=new --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking
               --disable-component-update --disable-sync --disable-dev-shm-usage --hide-scrollbars
               --force-prefers-reduced-motion --lang=en-US --use-fake-device-for-media-stream
               --use-fake-ui-for-media-stream].freeze

    TIMEOUTS = { script: 180_000, page_load: 300_000 }.freeze # axe takes its time on a busy machine

    # A record is sent by a script, and the page leaves while a test looks at it: what it looked at is gone, and
    # Chromium has several words for that. It looks again, as long as Capybara waits.
    module Leaving
      def invalid_element_errors = super + [Selenium::WebDriver::Error::UnknownError]
    end

    Capybara.register_driver(:chromium) do |app|
      options = Selenium::WebDriver::Chrome::Options.new(args: FLAGS, binary: "/usr/bin/chromium", timeouts: TIMEOUTS)
      service = Selenium::WebDriver::Service.chrome(path: "/usr/bin/chromedriver")
      Capybara::Selenium::Driver.new(app, browser: :chrome, options:, service:).extend(Leaving)
    end
    Capybara.default_driver = :chromium
    Capybara.server = :puma, { Silent: true, Threads: "1:4" }
    Capybara.default_max_wait_time = 90 # each wait ends as soon as what it waits for is there
    Capybara.enable_aria_label = true
    Capybara.app = ->(env) { Testing.demo.call(env) }

    # A machine that is busy with other things starves the page now and then: asked again, up to three times.
    def patiently(tries = 3)
      yield
    rescue Selenium::WebDriver::Error::TimeoutError
      (tries -= 1).positive? ? retry : raise
    end

    def visit(...) = patiently { super }

    def resize(size)
      width, height = SIZES.fetch(size)
      page.driver.browser.execute_cdp("Emulation.setDeviceMetricsOverride", width:, height:, deviceScaleFactor: 1,
                                      mobile: size == "phone")
    end

    # Waits until what was asked for in the page has come.
    def answered = assert_no_selector(".htmx-request")

    # Waits until the block is true, as long as Capybara waits, or so many seconds.
    def eventually(seconds = Capybara.default_max_wait_time)
      errors = [*page.driver.invalid_element_errors, Capybara::ElementNotFound, Capybara::ExpectationNotMet]
      page.document.synchronize(seconds, errors:) { yield or raise Capybara::ExpectationNotMet }
    end

    # Texts of all that match, at one moment: what is swapped meanwhile makes none of them stale.
    def texts(css) = evaluate_script("[...document.querySelectorAll(arguments[0])].map((at) => at.innerText)", css)

    # Draws an area on the survey's map by its corners, in pixels from the middle.
    def draw_area(*corners)
      assert_selector "#map[data-ready='30']"
      find(".leaflet-pm-icon-polygon").click
      map = find("#map").native
      [*corners, corners.first].each { |x, y| page.driver.browser.action.move_to(map, x, y).click.perform }
    end

    # What a strict policy or a script complained of.
    def complaints
      page.driver.browser.logs.get(:browser).map(&:message).grep_v(/status of 422/) # a form sent back with complaints
    end
  end

  class BrowserTest < Minitest::Test
    include Capybara::DSL
    include Capybara::Minitest::Assertions
    include Browser

    def setup
      Testing.demo(fresh: true)
      resize("desk")
    end

    def teardown = Capybara.reset_sessions!
  end
end
