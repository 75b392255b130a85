# frozen_string_literal: true

module Thistle
  module Web
    # The one place that asks who may: every route stands in web/addresses.yml, every record that an address names is
    # looked for inside the properties that the account sees, and what one may not is not there (404).
    module Gate
      ACCOUNT = "thistle.account_id" # whom the door let in
      GUEST = "guest" # the link by which a guest came
      LOOKS_AS = "looks_as" # in the demo: as whom one looks
      OPEN = %r{\A/(calendars|shared)/|\A/pocket/standing\z} # let in by a key in the address
      BACK = %r{\A/(?![/\\])[^\s\\]*\z} # a path of ours, to go back to

      # Who asks: an Access, a GuestAccess, or Access::Nobody.
      def who = @who ||= who_on(Store::Setting.today)

      # Does this copy show itself, so that nobody signs in?
      def demo?
        @demo = !Store::Setting.read(Store::Account::DEMO).to_s.empty? if @demo.nil?
        @demo
      end

      # May whoever asks do so on the property at hand (or another)? For buttons and parts of pages.
      def may?(act, thing, on: property_chosen&.id) = who.may?(act.to_s, thing.to_s, on)

      # The property as whoever asks may see it.
      def veiled(property)
        property.veiled = !may?(:change, :land, on: property.id)
        property
      end

      # Before anything of the application answers: who is there, or the way to the door.
      def at_the_door
        Thread.current[Store::Acting::KEY] = who.account_id
        return if who.signed_in? || request.path_info.match?(OPEN)

        halt 401, json(error: "Sign in first.") if @json
        halt 401 unless request.get? || request.head?
        go_through_the_door
      end

      # Whoever sees no property begins one, or reads why; what they send is for nobody.
      def without_ground
        halt 404 unless request.safe?
        redirect to(may?(:add, :property) ? "/records/properties/new" : "/account"), 303
      end

      # What is taken out of the copy stands in the trail.
      def note_taken
        return unless request.get? && response.status == 200 && who.signed_in? && !who.everyone?
        return unless response["Content-Disposition"].to_s.start_with?("attachment")

        Store::Trail.note("took out", "file", property_id: property_chosen&.id, said: request.path_info)
      rescue Sequel::Error => e # a full disk keeps nobody from taking their records out
        warn "trail: #{e.message}"
      end

      # Before a route answers. A route that stands in no table answers nobody.
      def admit(route)
        address = Addresses.of(route)
        return if address.thing == "anyone"

        @thing, @act = address.thing_of(params), address.act
        halt 404 unless address_allowed?(address, params)
        halt confirm_first if address.sure && !sure?
        address.signed.each { |name| params[name] = signature } if signs?
      end

      # The name that stands under what whoever asks decides; nil while anybody may be sitting there.
      def signature = who.account&.name || (who.name if who.is_a?(GuestAccess))

      # Does the account sign what whoever asks decides? In the demo anybody may be sitting there.
      def signs? = !signature.nil? && !demo?

      # What a link to a record promises whoever asks.
      def amend_word = may?(:change, :record) ? "correct" : "details"

      # A page with what its reader may do, and nothing else.
      def within_reach(page)
        return page if reaches_all? || !(response.content_type || "text/html").start_with?("text/html")

        WithinReach.new { |verb, path| reach?(verb, path) }.call(page)
      end

      # Sinatra's one way to a route's block.
      def route_eval
        admit(env.fetch("sinatra.route"))
        return super unless record_key

        throw(:halt, once_held { super() })
      end

      private

      # Whoever answers for the copy and for this property is refused nothing that its pages offer.
      def reaches_all? = who.everyone? || (who.keeper? && who.roles(property_chosen&.id).include?("steward"))

      # Has the session shown lately who it is? Asked before what cannot be undone.
      def sure? = who.everyone? || demo? || env["rodauth"]&.sure?

      def confirm_first
        session["flash"] = Accounts::Door::WORDS["password_authentication_required_error_flash"]
        back = request.referer.to_s.delete_prefix(request.base_url)[BACK] || "/"
        session["confirm_password_redirect"] = back
        # Without a password one shows one's passkey again.
        known = Accounts::MineDesk.new(who.account, today).password?
        redirect to(known ? "/account/confirm" : "/account/sign-in?back=#{Rack::Utils.escape(back)}"), 303
      end

      # May what stands behind a path be asked for? What is no address of ours is for whoever serves it. What a page
      # names is on a property that whoever asks sees: where they hold the same roles on all of these, no record is
      # looked up to know that.
      def reach?(verb, path)
        place, query = path.split("?", 2)
        place = place.to_s.delete_suffix(".json")
        address, named = Addresses.at(self.class, verb, place)
        return true if address.nil? || address.thing == "anyone"

        nothing = query.nil? && named.empty? # no record is named: what counts is the property at hand
        by_role = (nothing || who.alike?) && reach_of(address)
        return by_role == :all if %i[all none].include?(by_role)

        address_allowed?(address, query ? { **Rack::Utils.parse_query(query), **named } : named)
      rescue ArgumentError # a query that is none
        false
      end

      # What their roles alone allow: :all of it, :none, or :some, by whose record it is.
      def reach_of(address)
        return :some if address.thing.start_with?("@")

        @held ||= Hash.new { |all, (thing, act)| all[[thing, act]] = who.reach(act, thing, property_chosen&.id) }
        @held[[address.thing, address.act]]
      end

      def address_allowed?(address, asked)
        thing = address.thing_of(asked) or return false
        records = address.records(asked)
        allowed?(address.act, thing, records, homes_of(records))
      end

      # To the second step, or to sign in; a link that was followed from elsewhere comes without its session, and is
      # asked for again from here first (Elsewhere).
      def go_through_the_door
        return halt(followed_here) if request.env["HTTP_SEC_FETCH_SITE"] == "cross-site"

        session["two_factor_auth_redirect"] = request.fullpath if env[Accounts::Door::HALF]
        redirect to(env[Accounts::Door::HALF] || "/account/sign-in?back=#{Rack::Utils.escape(request.fullpath)}"), 303
      end

      def followed_here
        erb(:"accounts/again", layout: :"accounts/sheet", locals: {}) if (@again = request.fullpath)
      end

      # {[kind, id] => property id} of what is on a property. What is not there at all is for its route to say.
      def homes_of(records)
        records.reject { |kind, _| Store::Belongs::OF_NONE.key?(kind) || !Store::Belongs.known?(kind) }
               .to_h { |kind, id| [[kind, id], home_of(kind, id)] }.compact
      end

      def home_of(kind, id)
        @homes ||= {}
        @homes.fetch([kind, id]) { |key| @homes[key] = Store::Belongs.property_id(kind, id) }
      end

      def allowed?(act, thing, records, homes)
        places = homes.values.uniq
        places = [property_chosen&.id] if places.empty?
        return false unless homes.values.all? { |id| who.sees?(id) }

        places.all? do |place|
          who.may?(act, thing, place) || records.any? { |kind, id| who.own?(act, thing, place, kind, id) }
        end
      end

      def guest
        key = session[GUEST] or return
        link = Store::GuestLink.standing(Store::Setting.today).first(id: key)
        link && GuestAccess.new(link)
      end

      def who_on(day)
        return Access.new(nil, day) unless Store::Account.door?

        account = account_at_hand(day)
        account ? Access.new(account, day) : guest || Access::Nobody.new
      end

      def account_at_hand(today)
        return env[ACCOUNT] && Store::Account.at_hand(env[ACCOUNT], today) unless demo?

        Store::Account.there.first(id: session[LOOKS_AS]) || Store::Account.there.order(:id).first(keeper: true)
      end
    end
  end
end
