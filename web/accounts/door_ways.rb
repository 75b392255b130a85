# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # What Rodauth does our way: sessions that a GET does not write, no telling who has an account, the way back.
      module DoorWays
        # A password that nobody has, hashed when the first stranger knocks: it costs them what it costs a member.
        def self.nobodys = @nobodys ||= Argon2::Password.new(**Door::COST).create("nobody's")

        # Signed in, but for the second step?
        def half? = logged_in? && uses_two_factor_authentication? && !two_factor_authenticated?

        # An address without an account takes as long as one with another password.
        def account_from_login(login)
          super || (param_or_nil(password_param) && spend_as_long && nil)
        end

        # Is the session on the list, and not too old? It is noted as in use once an hour, not with every page.
        def currently_active_session?
          key = session[session_id_session_key] or return false
          row = active_sessions_ds.where(session_id: compute_hmacs(key)).first or return false
          now = Time.now.utc
          return false if row[:last_use] < now - Door::IDLE || row[:created_at] < now - Door::WHOLE_LIFE

          touch(row, now) if row[:last_use] < now - Door::TOUCHED
          true
        end

        # Which browser it is, so that its owner knows it in the list.
        def active_sessions_insert_hash
          super.merge(told: request.user_agent.to_s.scrub[0, 200])
        end

        # It has just shown who it is.
        def update_session
          remove_inactive_sessions
          super
          now_sure
        end

        def after_confirm_password
          super
          now_sure
        end

        def two_factor_update_session(kind)
          super
          now_sure
        end

        def sure? = session[Door::SURE].to_i > Time.now.to_i - Door::SURE_FOR

        # Can what was sent be read at all? What cannot is for the application to refuse, in words.
        def readable?
          Sent.fault(request.params).nil?
        rescue StandardError
          false
        end

        # Pages that change how one gets in ask for the password; whoever has none shows the passkey once more.
        CHANGES = %w[change-address passkeys passkey-off codes no-codes recovery-codes password-alone].freeze

        def shows_passkey_first?
          logged_in? && !sure? && CHANGES.include?(request.path.delete_prefix("#{prefix}/")) && !has_password?
        end

        def show_passkey_first
          set_session_value(login_redirect_session_key, request.path)
          set_redirect_error_flash "Show your passkey once more first."
          redirect login_path
        end

        # A link that somebody followed from a letter comes without the session (same-site strict): the page asks for
        # itself again, from here.
        def from_elsewhere?
          request.get? && request.env["HTTP_SEC_FETCH_SITE"] == "cross-site" &&
            request.path_info.start_with?("#{prefix}/")
        end

        def hold_up
          scope.instance_variable_set(:@again, request.fullpath)
          return_response scope.view("again")
        end

        def csrf_tag(_path = nil)
          %(<input type="hidden" name="authenticity_token" value="#{scope.csrf}">)
        end

        # What is done at the door stands in the trail; what changes how one gets in is told in a letter too.
        NOTED = { before_logout: "signed out", after_account_lockout: "was locked out" }.freeze
        TOLD = { after_reset_password: "chose a password by letter", after_change_password: "changed the password",
                 after_verify_login_change: "changed the address", after_webauthn_setup: "made a passkey",
                 after_webauthn_remove: "took a passkey off", after_otp_setup: "set up codes of a phone",
                 after_otp_disable: "put away the codes of a phone" }.freeze
        { **NOTED, **TOLD }.each do |moment, act|
          define_method(moment) do
            super()
            noted(act, told: TOLD.key?(moment))
          end
        end

        # What the browser kept of pictures goes with the session.
        def after_logout
          super
          response.headers["Clear-Site-Data"] = %("cache")
        end

        # The old address hears of it too.
        def before_verify_login_change
          super
          @address_before = account[:email]
        end

        def after_login
          super
          remember_login if param_or_nil("remember_me") == "yes"
          noted("signed in")
        end

        # Messages stand where the application keeps its own.
        # rubocop:disable Naming/AccessorMethodName -- Rodauth's names
        def set_notice_flash(message) = session["flash"] = message
        def set_redirect_error_flash(message) = session["flash"] = message
        def set_notice_now_flash(message) = scope.instance_variable_set(:@said, message)
        def set_error_flash(message) = scope.instance_variable_set(:@wrong, message)
        # rubocop:enable Naming/AccessorMethodName

        # As Post takes it, whoever it goes to.
        def create_email_to(to, subject, body) = { to:, subject:, body: }

        # A key for choosing a password, for so many days, as a path.
        def account_password_reset_key_for(days)
          account_from_session || account_from_id(account_id_or_session_value)
          generate_reset_password_key_value
          password_reset_ds(account_id).delete
          db[reset_password_table].insert(id: account_id, key: reset_password_key_value,
                                          deadline: Time.now.utc + (days * 86_400), email_last_sent: Time.now.utc)
          reset_password_email_link
        end

        private

        def noted(act, told: false)
          id = account ? account_id : session_value
          Store::Trail.note(act, "door", account_id: id)
          return unless told && (who = Store::Account[id])

          [@address_before, who.email].compact.uniq.each do |to|
            Post.send(to:, subject: "Your account was changed", body: Letters.changed(who.name, act))
          end
        end

        def now_sure = session[Door::SURE] = Time.now.to_i

        def spend_as_long = Argon2::Password.verify_password(param(password_param), DoorWays.nobodys)

        def touch(row, now)
          active_sessions_ds.where(session_id: row[:session_id]).update(last_use: now)
        end
      end
    end
  end
end
