# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # Where is it, how much, what is around it? The map, its patches, their shapes.
      module Routes
        def self.registered(app)
          app.helpers Helpers
          pages(app)
          data(app)
          changes(app)
          shapes(app)
          app.register Ground, Walks, Exchange
        end

        def self.pages(app)
          app.get "/survey" do
            show("survey/index", form: Forms::Patch.blank(today).with(drawn_before)) do
              paged(property.live_patches.for_answers) { |one| Answers.patch(one) }
            end
          end

          app.get "/survey/patches/:id" do
            patch = patch_at(params["id"])
            show_patch(patch) { Answers.patch(patch) }
          end

          app.get "/survey/here" do
            desk = GroundDesk.new(property, today, patch: patch_in_query, form: place_in_query)
            show("survey/here", status: desk.form.ok? ? 200 : 422, desk:) { Answers.ground(desk) }
          end

          app.get "/survey/totals" do
            totals = Store::Totals.new(property)
            show("survey/totals", totals:) { Answers.totals(totals, today) }
          end

          app.get "/survey/site-map" do
            show "survey/site_map", map: SiteMap.new(property, today)
          end

          app.get "/survey/site-map.svg" do
            content_type "image/svg+xml"
            plot "site_map", map: SiteMap.new(property, today), alone: true
          end
        end

        def self.data(app)
          # Patches in the box; those whose extent also meets the box `seen` are left out, since the map has them.
          app.get "/survey/features" do
            content_type "application/geo+json"
            box, seen = %w[bbox seen].map { |name| Store::InView.box(params[name]) }
            halt 422, JSON.generate(error: "bbox is west,south,east,north") unless box
            Store::InView.new(property.id, box, seen:).json
          end

          app.get "/survey/ground" do
            content_type "application/geo+json"
            kept = property.zones_shown.filter_map do |zone|
              zone.kept_ground && { shape: zone.kept_ground, properties: { kind: "kept", name: zone.label } }
            end
            zones = property.zones_shown.map do |zone|
              { shape: zone.shape, properties: { kind: zone.kind, name: zone.name } }
            end
            Formats::GeoJSON.write(kept + zones)
          end

          app.get "/survey/list" do
            part "survey/_list", list: PatchList.new(property, params)
          end

          app.post "/survey/measure" do
            part "survey/_measure", measure: Measure.new(params, units, property)
          end
        end

        def self.changes(app)
          app.post "/survey/patches" do
            form = Forms::Patch.new(params, units:, today:)
            patch = form.add_to(property)
            next show("survey/index", status: 422, form:) unless patch

            go_to "/survey/patches/#{patch.id}", "#{patch.code} is on the map."
          end

          app.put "/survey/patches/:id" do
            patch = patch_at(params["id"])
            form = Forms::Patch.new(params, units:, today:)
            next go_to("/survey/patches/#{patch.id}", "#{patch.code} changed.") if form.change(patch)

            show_patch(patch_at(params["id"]), status: form.outdated? ? 409 : 422, form:)
          end

          app.delete "/survey/patches/:id" do
            patch = patch_at(params["id"])
            Store::Change.keep([patch], "#{patch.code} taken off the map") { patch.update(deleted_at: Time.now.utc) }
            offer_undo
            go_to "/survey", "#{patch.code} was taken off the map."
          end

          app.post "/survey/changes/:id/undo" do
            change = Store::Change.undoable[id: Whole.read(params["id"])] || halt(404)
            change.take_back
            patch = Store::Patch.live[id: change.patch_id]
            go_to patch ? "/survey/patches/#{patch.id}" : "/survey", "Undone: #{change.label}."
          end
        end

        # What one can do to a patch's ground; each answers with a way back.
        def self.shapes(app)
          app.post "/survey/patches/:id/again" do
            patch = patch_at(params["id"])
            again = Forms::Again.new(params, units:, today:, seen_on: patch.seen_on)
            next show_patch(patch, status: 422, again:) unless again.store(patch)

            offer_undo
            go_to "/survey/patches/#{patch.id}", "#{patch.code} as it was on #{full_day(again.values[:seen_on])}."
          end

          { "split" => :split, "cut-off" => :cut_off, "merge" => :merge }.each do |path, act|
            app.post "/survey/patches/:id/#{path}" do
              patch = patch_at(params["id"])
              reshape = Forms::Reshape.new(params, units:, today:, seen_on: patch.seen_on)
              said = reshape.public_send(act, patch)
              next show_patch(patch_at(params["id"]), status: 422, reshape:, act:) unless said

              offer_undo
              go_to "/survey/patches/#{reshape.goes_to}", said
            end
          end
        end

        # A patch's page, for every room that sends a form of it back.
        module Helpers
          # The place whose history the address asks for, if any.
          def place_in_query
            asked = params.key?("lat") || params.key?("lon")
            asked ? Forms::Here.new(params, units:, today:) : Forms::Here.untouched(units:, today:)
          end

          # A row of an arrival that may still be put right.
          def row_of(arrival)
            halt 409 unless arrival.draft?
            Store::ArrivalRow.first(id: Whole.read(params["row"]), arrival_id: arrival.id) || halt(404)
          end

          # What the change of a row changes for the others, too.
          def look_again(arrival, words)
            arrival.look(seen_on: today)
            go_to "/survey/arrivals/#{arrival.id}?#{Rack::Utils.build_query("show" => params["show"].to_s)}", words
          end

          # forms: those that somebody sent, by name; the others are as the records have them.
          def show_patch(patch, status: 200, form: Forms::Patch.of(patch, units), **forms, &json)
            unsent = { again: nil, reshape: nil, act: nil, visit: nil }
            show("survey/patch", status:, patch:, form:, **unsent, **forms, &json)
          end
        end
      end
    end
  end
end
