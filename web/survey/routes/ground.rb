# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Routes
        # Zones and base layers.
        module Ground
          TILES_COME = "Tiles come from that address from now on, and it learns what ground you look at."
          def self.registered(app)
            zones(app)
            layers(app)
            layer_files(app)
          end

          def self.zones(app)
            app.get "/survey/zones" do
              show("survey/zones", form: Forms::Zone.blank(today)) do
                property.zones_shown.map do |zone|
                  Answers.zone(zone)
                end
              end
            end

            app.post "/survey/zones" do
              form = Forms::Zone.new(params, units:, today:)
              zone = form.store(property)
              next show("survey/zones", status: 422, form:) unless zone

              go_to "/survey/zones", "#{zone.heading} is on the map. Patches near it are updated."
            end

            app.delete "/survey/zones/:id" do
              zone = zone_at(params["id"])
              zone.take_off
              offer_undo "/survey/zones/#{zone.id}/undo"
              go_to "/survey/zones", "#{zone.heading} was taken off the map."
            end

            app.post "/survey/zones/:id/undo" do
              zone = zone_at(params["id"])
              zone.bring_back
              go_to "/survey/zones", "#{zone.heading} is back."
            end
          end

          def self.layers(app)
            app.get "/survey/layers" do
              show("survey/layers", form: Form::Blank.new) do
                property.layers_dataset.live.map { |layer| Answers.layer(layer) }
              end
            end

            app.post "/survey/layers" do
              layer = Layering.take(property, params)
              go_to "/survey/layers", "#{layer.name} is on the map."
            rescue Core::BadInput => e
              show "survey/layers", status: 422, form: Form::Blank.new(params).failed(e.field, e.message)
            end

            app.post "/survey/layers/:id/shown" do
              layer_at(params["id"]).update(shown: params["shown"] == "yes")
              go_to "/survey/layers"
            end

            app.delete "/survey/layers/:id" do
              layer = layer_at(params["id"])
              layer.take_off
              offer_undo "/survey/layers/#{layer.id}/undo"
              go_to "/survey/layers", "#{layer.name} was taken off."
            end

            app.post "/survey/layers/:id/undo" do
              layer = Store::Layer[id: Whole.read(params["id"])] || halt(404)
              layer.bring_back
              go_to "/survey/layers", "#{layer.name} is back."
            end

            app.post "/survey/tiles" do
              form = Forms::Tiles.new(params, units:, today:)
              next show("survey/layers", status: 422, form:) unless form.store(property)

              go_to "/survey/layers", form.values[:tile_url] ? TILES_COME : "No outside tiles."
            end
          end

          def self.layer_files(app)
            app.get "/survey/layers/:id/lines" do
              content_type "application/geo+json"
              Layering.lines(layer_at(params["id"]))
            end

            app.get "/survey/layers/:id/shade" do
              layer = layer_at(params["id"])
              halt 404 unless layer.kind == "elevation"
              content_type "image/png"
              kept_for 86_400
              Core::Kept::ANSWERS.fetch([:shade, layer.file]) { Layering.shade(layer.grid) }
            end

            app.get "/survey/layers/:id/picture" do
              layer = layer_at(params["id"])
              halt 404 unless layer.kind == "picture"
              kept_for 86_400
              head = File.binread(layer.path, 16)
              send_file layer.path, type: Formats::Image::TYPES.find { |_, sign| head.start_with?(sign) }.first
            end

            app.get "/survey/layers/:id/:zoom/:column/:row" do
              layer = layer_at(params["id"])
              halt 404 unless layer.kind == "tiles"
              file = Formats::MBTiles.new(layer.path)
              tile = file.tile(*params.values_at("zoom", "column", "row").map { |text| Whole.read(text) }) || halt(404)
              content_type file.media
              kept_for 86_400
              tile
            ensure
              file&.close
            end
          end
        end
      end
    end
  end
end
