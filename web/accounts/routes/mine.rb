# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Routes
        # One's own account: how one signs in, where, what is kept of oneself; the first account of a copy.
        module Mine
          def self.registered(app)
            kept(app)
            first(app)
            demo(app)
          end

          def self.kept(app)
            app.get "/account" do
              next show("accounts/none") { {} } unless who.account

              desk = MineDesk.new(who.account, today)
              show("accounts/mine", desk:, error: nil) { Answers.mine(desk) }
            end

            app.post "/account/name" do
              halt 404 unless who.account
              name = params["name"].to_s.strip[0, 80]
              raise Core::BadInput.new("A name is needed.", field: :name) if name.empty?

              who.account.update(name:)
              go_to "/account", "Your name is kept."
            end

            app.post "/account/seen" do
              halt 404 unless who.account
              who.account.update(seen_id: Whole.read(params["last"]))
              go_to "/", "Noted: what comes after this is new."
            end

            app.post "/account/weekly" do
              halt 404 unless who.account
              who.account.update(weekly: params["weekly"] == "yes")
              go_to "/account", who.account.weekly ? "A letter comes each Monday." : "No weekly letter."
            end

            app.post "/account/sessions/end" do
              halt 404 unless who.account
              MineDesk.new(who.account, today).end_sessions(params["session"].to_s, mine: env["rodauth"])
              go_to "/account", "Signed out there."
            end

            app.get "/account/data" do
              halt 404 unless who.account
              content_type :json
              attachment "my-data-#{today.iso8601}.json"
              JSON.pretty_generate(OwnData.new(who.account).to_h)
            end

            app.post "/account/leave" do
              halt 404 unless who.account
              stay_in_demo
              Store::Leaving.new(who.account, name: params["keep"]).call
              session.clear
              redirect to("/account/sign-in"), 303
            rescue Core::BadInput => e
              show "accounts/mine", status: 422, desk: MineDesk.new(who.account, today), error: e.message
            end
          end

          # While nobody has an account, whoever sits here makes the first: its owner answers for all there is.
          def self.first(app)
            app.get "/account/first" do
              halt 404 if Store::Account.door?
              show "accounts/first", form: Forms::First.untouched({}, units:, today:)
            end

            app.post "/account/first" do
              halt 404 if Store::Account.door?
              form = Forms::First.new(params, units:, today:)
              next show("accounts/first", status: 422, form:) unless form.store

              go_to "/account/sign-in", "The door is closed behind you: sign in from now on."
            end
          end

          # The demo is looked at as any of its people.
          def self.demo(app)
            app.post "/account/look-as" do
              halt 404 unless demo?
              account = Store::Account.there.first(id: Whole.read(params["account"])) || halt(404)
              session.delete("property")
              session[Gate::LOOKS_AS] = account.id
              go_to "/", "You look as #{account.name} now."
            end
          end
          private_class_method :kept, :first, :demo
        end
      end
    end
  end
end
