# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # Natives to plant
      module Routes
        def self.registered(app)
          app.helpers Words, Helpers
          app.register Plans
          app.register Seed
          app.register Establishment
          app.register Benches

          app.get "/replant" do
            patch = patch_in_query
            desk = Desk.new(params, patch, property, today)
            show("replant/index", desk:, patch:) { Answers.bench(desk) }
          end

          app.post "/replant/site" do
            patch = patch_at(params["patch"])
            desk = Desk.new(params, patch, property, today)
            wrong = desk.tap(&:sheet).errors.any?
            next show("replant/index", status: 422, desk:, patch:) { Answers.bench(desk) } if wrong

            desk.keep
            go_to "/replant?patch=#{patch.id}", "Kept: what is said of the ground of #{patch.code}."
          end

          app.get "/replant/mix" do
            patch = patch_in_query
            desk = Desk.new(params, patch, property, today)
            mix = MixDesk.new(params, desk, units, today)
            show("replant/mix", desk:, mix:, patch:) { Answers.mix(mix) }
          end

          app.get "/replant/first" do
            patch = patch_in_query || halt(404)
            next go_to("/survey/patches/#{patch.id}", "Name it first: what comes back depends on what it is.") unless
              patch.plant

            ground = Store::ClearedGround.new(patch, today)
            show("replant/first", patch:, ground:) { Answers.first(ground) }
          end
        end
      end
    end
  end
end
