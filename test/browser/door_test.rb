# frozen_string_literal: true

require "support/browser"

module Thistle
  # Passkeys in real Chromium, with its own virtual authenticator (WebAuthn 2); the door's pages at both sizes.
  class DoorBrowserTest < BrowserTest
    WORD = "seven wet boots in a row"
    MAIL = "m.oakes@quillback.example"

    def setup
      super
      Store::Setting.write(Store::Account::DEMO, "")
      @account = Store::Account.at(MAIL)
      Web::Accounts::Newcomer.password(@account, WORD)
      Capybara.app_host = "http://localhost:#{Capybara.current_session.server.port}" # a passkey is for a name
      @key = page.driver.browser.add_virtual_authenticator(
        Selenium::WebDriver::VirtualAuthenticatorOptions.new(protocol: :ctap2, resident_key: true,
                                                             user_verification: true, user_verified: true)
      )
    end

    def teardown
      @key.remove!
      Capybara.app_host = nil
      super
    end

    def sign_in
      visit "/account/sign-in"
      fill_in "Mail address", with: MAIL
      fill_in "Password", with: WORD
      click_on "Sign in", exact: true
    end

    def test_a_passkey_is_made_and_opens_the_door
      sign_in

      assert_selector "summary", text: "M. Oakes"
      visit "/account/passkeys"
      fill_in "Password", with: WORD
      click_on "Make a passkey"

      assert_text "The passkey is kept"
      assert_text "1 passkey"
      find("summary", text: "M. Oakes").click
      click_on "Sign out"

      assert_text "You are signed out"
      click_on "Sign in with a passkey"

      assert_selector "summary", text: "M. Oakes"
      assert_equal 1, Sequel::Model.db[:account_webauthn_keys].where(account_id: @account.id).count
    end

    # Without a passkey of this site the page says so, and stays.
    def test_a_passkey_that_is_none
      page.driver.browser.execute_cdp("WebAuthn.setUserVerified", authenticatorId: @key.instance_variable_get(:@id),
                                                                  isUserVerified: false)
      visit "/account/sign-in"
      click_on "Sign in with a passkey"

      assert_text "No passkey of this site was shown"
    end

    # One key and a keyboard are enough; nothing is clipped, unreadable or without its name.
    def test_the_doors_pages_at_both_sizes
      sign_in
      assert_selector "summary", text: "M. Oakes"
      faults = Browser::SIZES.keys.flat_map do |size|
        resize size
        %w[/account /members /trail /outbox /permission /account/passkeys /account/codes
           /account/change-password].flat_map do |view|
          visit view
          wide = evaluate_script("document.documentElement.scrollWidth - document.documentElement.clientWidth")
          [*("#{view}: not there" if has_selector?("h1", text: "Not done", wait: 0)),
           *("#{view}: scrolls sideways at #{size}" if wide.positive?), *axe_faults(view)]
        end
      end

      assert_empty faults
    end

    def axe_faults(view)
      page.driver.browser.execute_script(File.read(axe_source))
      found = page.driver.browser.execute_async_script("axe.run().then(arguments[arguments.length - 1])")
      found["violations"].map { |one| "#{view}: #{one["id"]}: #{one["nodes"].first["html"][0, 120]}" }
    end

    def axe_source = Dir["#{Gem.loaded_specs["axe-core-api"].full_gem_path}/node_modules/axe-core/axe.min.js"].first
  end
end
