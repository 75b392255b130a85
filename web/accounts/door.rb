# frozen_string_literal: true

require "roda"
require "yaml"

module Thistle
  module Web
    module Accounts
      # The door (Rodauth): signing in by password or passkey, second steps, new passwords, sessions. It stands before
      # the application and tells it whose request it is (Gate::ACCOUNT); everything else of an account is a page of
      # ours under /account.
      class Door < Roda
        HALF = "thistle.half" # signed in but for the second step: where that is asked
        SURE = "sure_at" # when the session last showed who it is
        SURE_FOR = 600 # seconds
        IDLE, WHOLE_LIFE = 14 * 86_400, 60 * 86_400 # seconds of a session
        COST = { t_cost: 2, m_cost: 15, p_cost: 1 }.freeze # argon2id over 32 MB
        TOUCHED = 3600 # seconds between notes that a session is in use
        TOLD = YAML.safe_load_file("#{ROOT}/web/accounts/door.yml").freeze
        WORDS = TOLD["said"]
        VIEWS = "#{ROOT}/web/views/accounts".freeze

        plugin :middleware
        plugin :render, views: VIEWS, engine: "erb", escape: true, layout: "sheet"
        plugin :default_headers, "Content-Type" => "text/html; charset=utf-8", "Cache-Control" => "private, no-store",
                                 "Content-Security-Policy" => App::POLICY, "Referrer-Policy" => "same-origin"

        # Set at start (Boot): what keys in letters and sessions are signed with, and where the application is reached.
        class << self
          attr_accessor :secret, :address

          # A link that lets somebody choose a password, good for so many days: {path with its key}.
          def password_link(account, days:)
            rodauth.internal_request_eval(account_id: account.id) do
              account_password_reset_key_for(days)
            end
          end
        end

        plugin :rodauth, csrf: false, flash: false do
          enable :login, :logout, :argon2, :disallow_common_passwords, :lockout, :remember, :reset_password,
                 :change_password, :verify_login_change, :confirm_password, :close_account, :otp, :recovery_codes,
                 :webauthn, :webauthn_login, :webauthn_autofill, :active_sessions, :internal_request

          require_bcrypt? false
          db { Sequel::Model.db }
          hmac_secret { Door.secret }
          base_url { internal_request? ? Door.address : "#{request.scheme}://#{request.host_with_port}" }
          domain { request.host }
          prefix "/account"
          accounts_table :accounts
          login_column :email
          use_database_authentication_functions? false
          check_csrf? false
          title_instance_variable :@title
          already_logged_in { nil } # to show who one is, once more

          password_hash_cost(COST)
          normalize_login { |login| login.to_s.strip.downcase }
          account_lockouts_deadline_interval({ hours: 1 })
          remember_deadline_interval({ days: 60 })
          remember_cookie_options(same_site: :lax, path: "/")
          set_deadline_values? true
          session_inactivity_deadline IDLE
          session_lifetime_deadline WHOLE_LIFE

          TOLD.each_value { |part| part.each { |name, value| public_send(name, value) } }

          login_redirect "/"
          two_factor_auth_redirect "/"
          logout_redirect { login_path }
          default_redirect "/account"
          send_email { |mail| Post.send(mail) }
          reset_password_email_body { Letters.reset(account[:name], reset_password_email_link) }
          verify_login_change_email_body { Letters.address(account[:name], verify_login_change_email_link) }
          unlock_account_email_body { Letters.unlock(account[:name], unlock_account_email_link) }

          auth_class_eval do
            include DoorWays
          end
        end

        route do |r|
          request.env["rack.session"].options[:secure] = true if r.ssl?
          next if App.settings.over_tls.include?(r.host) && !r.ssl? # refused by the application

          rodauth.load_memory
          if rodauth.logged_in? && !rodauth.currently_active_session?
            r.session.clear
            r.session["flash"] = WORDS["active_sessions_error_flash"]
          end
          if rodauth.half?
            env[HALF] = rodauth.two_factor_auth_required_redirect
          elsif rodauth.logged_in?
            env[Gate::ACCOUNT] = rodauth.session_value
          end
          env["rodauth"] = rodauth
          next unless r.path.start_with?("/account/") && rodauth.readable?

          Store::Acting.as(rodauth.session_value || Store::Acting::HERE) { through(r) }
          nil
        end

        def through(r)
          rodauth.hold_up if rodauth.from_elsewhere?
          rodauth.show_passkey_first if rodauth.shows_passkey_first?
          r.session["login_redirect"] = r.params["back"] if r.get? && Gate::BACK.match?(r.params["back"].to_s)
          r.on("account") do
            r.rodauth
            throw :next, true # a page of ours
          end
        end

        # For views.
        def static(path) = Statics.address(path)
        def csrf = Rack::Protection::AuthenticityToken.token(env["rack.session"])
        def flash = env["rack.session"].delete("flash")
      end
    end
  end
end
