# frozen_string_literal: true

require "logger"
require "rotp"
require "support/web"

module Thistle
  # Signing in and out, and what people try at a door (ASVS 2 and 3, level 2: docs/security.md).
  class DoorTest < RackTest
    GOOD = "seven wet boots in a row"
    MAIL = "m.oakes@quillback.example"

    # The demo's people, behind a door: M. Oakes has a password.
    def setup
      super
      Store::Setting.write(Store::Account::DEMO, "")
      @oakes, @finch = [MAIL, "j.finch@quillback.example"].map { |mail| Store::Account.at(mail) }
      Web::Accounts::Newcomer.password(@oakes, GOOD)
      clear_cookies
    end

    def token = last_response.body[/name="authenticity_token" value="([^"]+)"/, 1]

    # A page of the door, and its form sent.
    def at_door(path, **fields)
      get path
      post path.split("?").first, { authenticity_token: CGI.unescapeHTML(token.to_s), **fields }
    end

    def sign_in(login = MAIL, password = GOOD, **more) = at_door("/account/sign-in", login:, password:, **more)
    def letter = Store::Letter.newest.first
    def link = URI(letter.body[/http\S+/]).request_uri
    def in? = get("/survey").status == 200

    def test_nobody_gets_in_and_everybody_comes_back_to_where_they_went
      get "/survey/patches/2?a=1"

      assert_equal "http://example.org/account/sign-in?back=%2Fsurvey%2Fpatches%2F2%3Fa%3D1", last_response.location
      at_door("/account/sign-in?back=#{CGI.escape("/survey/patches/2?a=1")}", login: " #{MAIL.upcase}", password: GOOD)

      assert_equal "/survey/patches/2?a=1", last_response.location
      assert_said "M. Oakes", "Sign out" if get("/survey/patches/2")
    end

    # Ways back that lead elsewhere lead to Today.
    def test_the_way_back_is_ours
      ["//evil.example/", "https://evil.example", "/\\evil.example", "javascript:alert(1)"].each do |back|
        clear_cookies
        at_door("/account/sign-in?back=#{CGI.escape(back)}", login: MAIL, password: GOOD)

        assert_equal "/", last_response.location, back
      end
    end

    # The same words whether the address, the password or both are wrong; as much work for an address unknown.
    def test_a_stranger_learns_nothing
      worked = 0
      verify = Argon2::Password.method(:verify_password)
      counted = ->(*given) do
        worked += 1
        verify.call(*given)
      end
      said = [[MAIL, "wrong"], ["nobody@a.example", GOOD], ["nobody@a.example", ""]].map do |login, password|
        Argon2::Password.stub(:verify_password, counted) { sign_in(login, password) }
        [last_response.status, last_response.body[%r{role="alert"><span>(.*?)</span>}, 1]]
      end

      assert_equal [[401, "That address and password do not open this door."]], said.uniq
      assert_equal 3, worked
    end

    def test_ten_wrong_passwords_lock_and_a_letter_unlocks
      11.times { sign_in(MAIL, "wrong") }
      sign_in

      assert_said "Too many wrong passwords"
      refute_predicate self, :in?
      post "/account/locked", { authenticity_token: page_token("/account/sign-in"), login: MAIL }
      get link
      follow_redirect!
      post "/account/unlock", { authenticity_token: CGI.unescapeHTML(token) }
      sign_in

      assert_predicate self, :in?
      assert_equal ["Unlock your account"], Store::Letter.select_map(:subject)
    end

    def page_token(path)
      get path
      CGI.unescapeHTML(token)
    end

    # A link from a letter counts once; it ends every session; a common password is refused.
    def test_a_new_password_by_letter
      sign_in
      old = rack_mock_session.cookie_jar.dup
      clear_cookies
      at_door("/account/forgotten", login: MAIL)
      stolen = link
      get stolen
      follow_redirect!
      send_new = ->(word) do
        post "/account/password",
             { authenticity_token: CGI.unescapeHTML(token), password: word, "password-confirm": word }
      end
      send_new.call("1234567890")

      assert_equal 422, last_response.status
      send_new.call("eleven frogs and a kettle")

      assert_equal "Your account was changed", letter.subject
      sign_in(MAIL, "eleven frogs and a kettle")

      assert_predicate self, :in?
      get stolen

      assert_includes last_response.location, "/account/sign-in" if follow_redirect!.redirect?
      rack_mock_session.instance_variable_set(:@cookie_jar, old)

      refute_predicate self, :in?
    end

    # What was signed out stays out, whoever kept the cookie.
    def test_an_old_session_is_over
      sign_in
      kept = rack_mock_session.cookie_jar.dup
      get "/account"
      post "/account/sign-out", { authenticity_token: CGI.unescapeHTML(token) }
      rack_mock_session.instance_variable_set(:@cookie_jar, kept)

      refute_predicate self, :in?
    end

    def test_sessions_are_listed_and_ended_and_grow_old
      sign_in
      other = rack_mock_session.cookie_jar.dup
      clear_cookies
      sign_in
      get "/account"

      assert_equal 2, last_response.body.scan("Sign out there").size
      post "/account/sessions/end", { authenticity_token: CGI.unescapeHTML(token) }

      assert_predicate self, :in?
      here = rack_mock_session.cookie_jar.dup
      rack_mock_session.instance_variable_set(:@cookie_jar, other)

      refute_predicate self, :in?
      rack_mock_session.instance_variable_set(:@cookie_jar, here)
      sessions = Sequel::Model.db[:account_active_session_keys]
      sessions.update(last_use: Time.now.utc - Web::Accounts::Door::IDLE - 60)

      refute_predicate self, :in?
    end

    # A page is read without a word written: a session is noted once an hour.
    def test_a_get_does_not_write
      sign_in
      get "/survey"
      log = StringIO.new
      Sequel::Model.db.loggers << (logger = Logger.new(log))
      5.times { get "/survey" }

      assert_equal 200, last_response.status
      assert_match(/SELECT/, log.string)
      refute_match(/INSERT|UPDATE|DELETE/, log.string)
    ensure
      Sequel::Model.db.loggers.delete(logger)
    end

    def test_a_phone_is_remembered_until_it_is_forgotten
      sign_in(MAIL, GOOD, remember_me: "yes")
      kept = rack_mock_session.cookie_jar["thistle_phone"]
      clear_cookies
      set_cookie "thistle_phone=#{kept}"

      assert_predicate self, :in?
      get "/account"
      post "/account/sessions/end", { authenticity_token: CGI.unescapeHTML(token) }
      clear_cookies
      set_cookie "thistle_phone=#{kept}"

      refute_predicate self, :in?
    end

    # The codes of a phone are RFC 6238's, as rotp reckons them; recovery codes count once.
    def test_codes_of_a_phone_and_recovery
      sign_in
      secret = get("/account/codes").body[/name="otp_secret" value="([^"]+)"/, 1]
      code = ROTP::TOTP.new(secret)
      post "/account/codes", { authenticity_token: CGI.unescapeHTML(token), otp_secret: secret, otp: code.now,
                               password: GOOD }

      assert_predicate self, :in?
      clear_cookies
      sign_in

      refute_predicate self, :in?
      assert_includes last_response.location, "/account/second-step"
      at_door("/account/code", otp: "000000")

      refute_predicate self, :in?
      recovery = Sequel::Model.db[:account_recovery_codes].where(id: @oakes.id).select_map(:code).first
      at_door("/account/recovery", "recovery-code": recovery)

      assert_predicate self, :in?
      clear_cookies
      sign_in
      at_door("/account/recovery", "recovery-code": recovery)

      refute_predicate self, :in?
    end

    # Somebody is invited, chooses a password, and may what their role may; taken away, an open page does nothing more.
    def test_an_invitation_and_a_role_that_ends
      sign_in
      form = page_token("/members")

      assert_said "last here"
      post "/members", { authenticity_token: form, email: "New@Q.example", name: "N. Ewell", role: "lead" }

      assert_equal "Your account for Quillback Hollow preserve", letter.subject
      clear_cookies
      get link
      follow_redirect!
      post "/account/password", { authenticity_token: CGI.unescapeHTML(token), password: "blue herons at dusk",
                                  "password-confirm": "blue herons at dusk" }
      sign_in("new@q.example", "blue herons at dusk")

      assert_equal 404, get("/members").status
      open_page = page_token("/survey/patches/#{patch("Q-04").id}")
      Store::Membership.first(account_id: Store::Account.at("new@q.example").id).take_away
      post "/survey/patches/#{patch("Q-04").id}", { authenticity_token: open_page, _method: "delete" }

      assert_equal 404, last_response.status
      assert_nil patch("Q-04").deleted_at
      assert_said "You have no property yet" if get("/account")
    end

    # What gives somebody the keys asks first who one is.
    def test_before_what_cannot_be_undone
      sign_in
      form = page_token("/members")
      at = Time.now.to_i + 3600
      Time.stub(:now, Time.at(at)) do
        post "/members", { authenticity_token: form, email: "a@b.example", name: "A", role: "steward" }
      end

      assert_includes last_response.location, "/account/confirm"
      assert_nil Store::Account.at("a@b.example")
    end

    # Whoever has no password shows a passkey again before how they get in is changed; another address counts
    # once its letter was answered, and both hear of it.
    def test_how_one_gets_in_is_changed_by_whoever_it_is
      sign_in
      Sequel::Model.db[:account_password_hashes].where(id: @oakes.id).delete
      Time.stub(:now, Time.now + 3600) do
        assert_equal 302, get("/account/change-address").status
        assert_equal "/account/sign-in", last_response.location
      end
      Web::Accounts::Newcomer.password(@oakes, GOOD)
      at_door("/account/change-address", login: "new@quillback.example", password: GOOD)

      assert_equal [MAIL, ["new@quillback.example"]], [@oakes.refresh.email, Store::Letter.select_map(:address)]
      get link
      at_door(URI(last_response.location).path)

      assert_equal "new@quillback.example", @oakes.refresh.email
      assert_equal [MAIL, "new@quillback.example"], Store::Letter.select_order_map(:address).uniq
    end

    # The last steward and the last keeper cannot go.
    def test_somebody_answers_for_everything
      sign_in
      post "/account/leave", { authenticity_token: page_token("/account"), keep: "name" }

      assert_said "Nobody else answers for this copy"
      held = Store::Membership.live.first(account_id: @oakes.id, role: "steward")
      post "/members/#{held.id}/end", { authenticity_token: page_token("/members") }

      assert_equal 422, last_response.status
      assert_said "would have no steward"
    end

    # Who leaves keeps nothing that opens the door; the name stays where the law wants it.
    def test_leaving_under_a_number
      Web::Accounts::Newcomer.password(@finch, GOOD)
      Store::Amendment.create(kind: "check", record_id: 1, act: "correct", was: "{}", person: "J. Finch")
      sign_in("j.finch@quillback.example")
      post "/account/leave", { authenticity_token: page_token("/account"), keep: "number" }

      refute_predicate self, :in?
      assert_equal ["Account #{@finch.id}"], Store::Amendment.where(kind: "check", record_id: 1).select_map(:person)
      assert_equal [0, 3],
                   [Sequel::Model.db[:account_password_hashes].where(id: @finch.id).count, @finch.refresh.status_id]
    end

    # An account signs; what somebody else's name is typed counts for nothing.
    def test_an_account_signs
      sign_in
      post "/decide/rules/off", { authenticity_token: page_token("/decide/rules"), rule: "dry_soil",
                                  reason: "Sand.", person: "Somebody else" }

      assert_equal ["M. Oakes"], Store::RuleSetting.live.select_map(:person)
      assert_equal [@oakes.id], Store::Trail.where(kind: "rule_settings").select_map(:account_id)
    end

    # The first account of a copy closes its door.
    def test_the_first_account
      db = Sequel::Model.db
      %i[account_password_hashes account_active_session_keys memberships comments accounts].each do |name|
        db[name].delete
      end

      assert_said "Nobody signs in here" if get("/account")
      get "/account/first"
      fields = { authenticity_token: CGI.unescapeHTML(token), name: "O. One", email: "o@one.example",
                 password_again: "short" }
      post "/account/first", { **fields, password: "short" }

      assert_equal 422, last_response.status
      post "/account/first", { **fields, password: GOOD, password_again: GOOD }

      refute_predicate self, :in?
      sign_in("o@one.example")

      assert_predicate self, :in?
      assert_equal 404, get("/account/first").status
      assert Store::Account.at("o@one.example").keeper
    end
  end
end
