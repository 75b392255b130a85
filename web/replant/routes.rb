# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # What goes back?
      module Routes
        def self.registered(app)
          app.get "/replant" do
            patch = patch_in_query
            desk = Desk.new(params, patch, units, site, (patch&.property || property).region)
            show("replant/index", desk:, patch:) { Answers.bench(desk) }
          end

          app.get "/replant/first" do
            patch = patch_in_query || halt(404)
            next go_to("/survey/patches/#{patch.id}", "Name it first: what comes back depends on what it is.") unless
              patch.plant

            ground = Store::ClearedGround.new(patch, today)
            show("replant/first", patch:, ground:) { Answers.first(ground) }
          end

          app.post "/replant/plantings" do
            patch = patch_at(params["patch"])
            desk = Desk.new(params, patch, units, site, (patch&.property || property).region)
            planting = desk.plan(patch)
            go_to "/survey/patches/#{patch.id}", "#{planting.native.name} is planned for #{day(planting.from_on)}."
          end
        end
      end
    end
  end
end
