# frozen_string_literal: true

module Thistle
  module Web
    module Today
      # Home: what is due, what this day is good for, what waits and why, over all properties.
      module Routes
        # Searches that are kept under a name.
        def self.kept(app)
          app.post "/find/kept" do
            name = params["name"].to_s.strip[0, 80]
            asked = Rack::Utils.build_query(Rack::Utils.parse_query(params["asked"].to_s[0, 1000]))
            next go_to("/find?#{asked}", "Give the search a name.") if name.empty?

            kept = Store::KeptSearch.keep(name, asked, account_id: who.account_id)
            go_to "/find?#{asked}",
                  kept ? "Kept as #{name}." : "#{Store::KeptSearch::MOST} are kept: take one off first."
          end

          { "drop" => :take_back, "keep" => :bring_back }.each do |name, act|
            app.post "/find/kept/:id/#{name}" do
              search = Store::KeptSearch.first(id: Whole.read(params["id"]), account_id: who.account_id) || halt(404)
              search.public_send(act)
              offer_undo "/find/kept/#{search.id}/keep" if name == "drop"
              go_to "/find?#{search.asked}", name == "drop" ? "#{search.name} is off the list." : "It is back."
            end
          end
        end

        # What /find needs.
        module Helpers
          # Kinds of records whose words whoever asks may read; where the place of some is veiled, none of zones.
          def kinds_to_find
            TextDesk::THINGS.select { |_, thing| may?(:read, thing) }.keys - (property_chosen&.veiled ? %w[zone] : [])
          end
        end

        def self.registered(app)
          app.helpers Helpers
          app.get "/" do
            board = Board.new(properties, today)
            show("today/index", board:) { Answers.today(board) }
          end

          app.get "/find" do
            places = self.places.map(&:first)
            found = Finder.new(params["q"].to_s, places)
            texts = TextDesk.new(params, property_chosen, places:, kinds: kinds_to_find)
            status = texts.errors.any? ? 422 : 200
            show("today/find", status:, found:, texts:, kept: Store::KeptSearch.named(who.account_id)) do
              Answers.found(found, texts)
            end
          end
          kept(app)

          app.get "/glossary/terms" do
            halt 404 unless @json
            public_for 3600
            json(Glossary.terms)
          end

          app.get "/glossary" do
            show("today/glossary", parts: Glossary.parts) { Answers.glossary(Glossary.parts) }
          end
        end
      end
    end
  end
end
