# frozen_string_literal: true

module Thistle
  module Web
    module Pocket
      # What a phone carries along and what it kept: taken along, recorded without signal, sent once.
      module Routes
        SAID = { cut_off: "That phone is emptied at its next contact.",
                 give_back: "That phone may carry records again." }.freeze

        def self.registered(app)
          app.helpers Helpers
          pages(app)
          sent(app)
          pieces(app)
          phones(app)
        end

        def self.pages(app)
          app.get "/pocket" do
            phones = phones_in_sight
            show("pocket/index", phones:) { { phones: phones.map { |one| Answers.phone(one) } } }
          end

          app.get "/pocket/record" do
            show "pocket/record", form: Routes.form(units, today), patch: params["patch"].to_s
          end

          app.get "/pocket/along" do
            day = Store::WorkDay.live.first(id: Whole.read(params["day"]), property_id: property.id)
            json Along.new(property, today, day:).to_h.merge(rules: Routes.rules, checks: Checks.all)
          end

          # What its own Ruby starts from, and what it knows of the property.
          app.get "/pocket/pack" do
            content_type :json
            Pack.shipped.json
          end

          app.get "/pocket/land" do
            shelf = may?(:read, :mix)
            json Carried.new(property, today, shelf:) { |patch| part("_stands", patch:) }.to_h
          end

          # Who this phone is to the copy; also asked by a phone whose session has ended.
          app.get "/pocket/standing" do
            phone = Store::Phone.at(request.env[Keyed::PHONE])
            json Answers.standing(who, phone, Store::Bundle.copy).merge(token: csrf)
          end
        end

        # Where a phone finds what its own Ruby is made of: addresses that say what they hold.
        def self.rules
          { wasm: Statics.address("/vendor/ruby.wasm"), glue: Statics.address("/vendor/ruby-wasm.js"),
            worker: Statics.address("/js/rules.js"), pack: "/pocket/pack.json?v=#{Pack.shipped.version}",
            land: "/pocket/land.json" }
        end

        # A form that nobody sent yet, for the records that can be made anywhere.
        def self.form(units, today)
          days = %w[done_on seen_on].to_h { |name| [name, today.iso8601] }
          Work::Forms::Treatment.untouched(days, units:, today:)
        end

        def self.sent(app)
          # Which of these keys are not here? A copy that was restored from an older one knows less than its phones.
          app.post "/pocket/known" do
            json unknown: Store::HeldRecord.unknown(params["keys"].to_s.split(","))
          end
        end

        def self.pieces(app)
          app.get "/pocket/pieces/:key" do
            json have: Store::Pieces.new(who.account_id).have(params["key"])
          end

          app.put "/pocket/pieces/:key" do
            from = Whole.read(params["from"])
            json have: Store::Pieces.new(who.account_id).add(params["key"], from, request.body.read)
          end
        end

        def self.phones(app)
          app.post "/pocket/phones" do
            phone = Store::Phone.seen(request.env[Keyed::PHONE], who.account_id, request.user_agent)
            json Answers.phone(phone)
          end

          { "cut-off" => :cut_off, "give-back" => :give_back }.each do |path, act|
            app.post "/pocket/phones/:id/#{path}" do
              phone = Store::Phone.first(id: Whole.read(params["id"]), **phones_in_reach) || halt(404)
              phone.public_send(act)
              go_to "/pocket#phones", SAID.fetch(act)
            end
          end
        end
        private_class_method :pages, :sent, :pieces, :phones

        # Phones that whoever asks may cut off: their own; the keeper everybody's.
        module Helpers
          def phones_in_reach = who.keeper? ? {} : { account_id: who.account_id }
          def phones_in_sight = Store::Phone.where(phones_in_reach).newest.limit(50).all
        end
      end
    end
  end
end
