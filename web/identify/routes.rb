# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      # What is it, and could it be something else?
      module Routes
        NOT_SEEN = "A patch is named by what was seen of it: on a day gone by, in its own region."

        def self.registered(app)
          app.helpers Helpers
          bench(app)
          plants(app)
          app.get("/img/glyphs.svg") do
            content_type "image/svg+xml"
            public_for 3600
            Glyphs.sprite
          end

          app.register Reports, Practice
        end

        def self.bench(app)
          app.get "/identify" do
            patch = patch_in_query
            desk = Desk.new(params, property, today)
            name = Forms::Name.untouched({ "named_on" => desk.date.iso8601 }, units:, today:)
            show("identify/index", desk:, patch:, name:) { Answers.bench(desk) }
          end

          app.post "/identify/names" do
            patch = patch_at(params["patch"])
            name = Forms::Name.new(params, units:, today:)
            if name.store(patch)
              next go_to("/survey/patches/#{patch.id}", "#{patch.code} is named: #{patch.plant.name}.")
            end

            show "identify/index", status: 422, desk: Desk.new({}, property, today), patch:, name:
          end

          app.post "/identify/observations" do
            patch = patch_at(params["patch"])
            desk = Desk.new(params, patch.property, today)
            key = desk.key
            raise Core::BadInput.new("Choose at least one thing that you saw.", field: :c) if key.observed.empty?
            raise Core::BadInput.new(NOT_SEEN, field: :on) if desk.date > today || desk.elsewhere?

            seen = Store::Observation.record(patch, key, note: params["note"])
            name = patch.group&.said || patch.plant.name
            go_to "/survey/patches/#{patch.id}",
                  seen.settled ? "Settled: #{name}." : "Recorded, not settled. The plant stays standing."
          end
        end

        def self.plants(app)
          app.get "/identify/plants/:key" do
            plant = knowledge.plants[params["key"]] || halt(404)
            show("identify/plant", plant:) { Answers.plant(plant, site, property.duties_of(plant)) }
          end

          app.post "/identify/plants/:key/watch" do
            plant = knowledge.plants[params["key"]] || halt(404)
            property.toggle_watch(plant)
            go_to "/identify/plants/#{plant.key}",
                  property.watched?(plant) ? "Watched for: reported before it is removed." : "No longer watched for."
          end

          # What the law asks of it here, as a steward writes it down; "lists" for what lists say.
          app.post "/identify/plants/:key/law" do
            plant = knowledge.plants[params["key"]] || halt(404)
            known = Core::Identify::Law::DUTIES.keys.map(&:to_s)
            property.lay_down(plant, params["by"] == "lists" ? nil : params.fetch("duties", {}).keys & known)
            go_to "/identify/plants/#{plant.key}", "Kept: what the law asks of #{plant.name} here."
          end

          app.get "/identify/duel/:left/:right" do
            left, right = params.values_at("left", "right").map { |key| knowledge.plants[key] || halt(404) }
            halt 404 if left == right
            duel = Core::Identify::Duel.new(left, right, site:, date: today)
            show("identify/duel", duel:) { Answers.duel(duel) }
          end
        end

        # What this room says, for every page.
        module Helpers
          def identify_words = Words.new(property)
        end
      end
    end
  end
end
