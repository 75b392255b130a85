# frozen_string_literal: true

module Thistle
  module Web
    module Routes
      # Where is it, how much, what is around it?
      module Survey
        def self.registered(app)
          pages(app)
          changes(app)
          arrivals(app)
        end

        def self.pages(app)
          app.get "/survey" do
            patches = property.live_patches.all
            show "survey/index", data: -> { patches.map { |p| Answers.patch(p) } }, patches:, form: Forms::Patch.blank(today)
          end

          app.get "/survey/features" do
            content_type "application/geo+json"
            bounds = params["bbox"].to_s.split(",").map { |n| Float(n, exception: false) }
            halt 422, JSON.generate(error: "bbox is west,south,east,north") unless bounds.size == 4 && bounds.all?
            Store::Patch.features_json(property.id, bounds)
          end

          app.get "/survey/ground" do
            content_type "application/geo+json"
            Formats::GeoJSON.write(property.zones.map do |zone|
              { geometry: JSON.parse(zone.geometry), properties: { kind: zone.kind, name: zone.name } }
            end)
          end

          app.get "/survey/patches/:id" do
            patch = patch_at(params["id"])
            show "survey/patch", data: -> { Answers.patch(patch) }, patch:, form: Forms::Patch.of(patch, units)
          end
        end

        def self.changes(app)
          app.post "/survey/measure" do
            part "survey/_measure", measure: Measure.new(params, units, property)
          end

          app.post "/survey/patches" do
            form = Forms::Patch.new(params, units:, today:)
            patch = form.add_to(property)
            next show("survey/index", status: 422, patches: property.live_patches.all, form:) unless patch

            go_to "/survey/patches/#{patch.id}", "#{patch.code} is on the map."
          end

          app.put "/survey/patches/:id" do
            patch = patch_at(params["id"])
            form = Forms::Patch.new(params, units:, today:)
            next go_to("/survey/patches/#{patch.id}", "#{patch.code} changed.") if form.change(patch)

            show "survey/patch", status: form.outdated? ? 409 : 422, patch: patch_at(params["id"]), form:
          end

          app.delete "/survey/patches/:id" do
            patch = patch_at(params["id"])
            patch.update(deleted_at: Time.now.utc)
            session[:undo] = patch.id
            go_to "/survey", "#{patch.code} was taken off the map."
          end

          app.post "/survey/patches/:id/undo" do
            patch = Store::Patch[id: params["id"].to_i] || halt(404)
            patch.update(deleted_at: nil)
            go_to "/survey/patches/#{patch.id}", "#{patch.code} is back."
          end
        end

        def self.arrivals(app)
          app.post "/survey/arrivals" do
            file = params["file"]
            raise Core::BadInput.new("Choose a file first.", field: :file) unless file.is_a?(Hash)

            features = Formats::Reader.read(file[:tempfile].read)
            arrival = Store::Arrival.take(property, File.basename(file[:filename]), features, seen_on: today)
            go_to "/survey/arrivals/#{arrival.id}"
          rescue Core::BadInput => e
            form = Forms::Patch.blank(today).failed(:file, e.message)
            show "survey/index", status: 422, patches: property.live_patches.all, form:
          end

          app.get "/survey/arrivals/:id" do
            arrival = Store::Arrival[params["id"].to_i] || halt(404)
            @property = arrival.property
            show "survey/arrival", data: { filename: arrival.filename, rows: arrival.rows, undone: !arrival.undone_at.nil? }, arrival:
          end

          app.post "/survey/arrivals/:id/undo" do
            arrival = Store::Arrival[params["id"].to_i] || halt(404)
            arrival.undo
            go_to "/survey", "#{arrival.filename} was taken back: #{arrival.taken.size} patches off the map."
          end
        end
      end
    end
  end
end
