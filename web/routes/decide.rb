# frozen_string_literal: true

module Thistle
  module Web
    module Routes
      # What to do to this patch, and which patch first?
      module Decide
        def self.registered(app)
          app.get "/decide" do
            patch = patch_in_query || Store::Patch.wanting_work.exclude(plant_key: nil).where(property_id: property.id).order(:code).first
            desk = DecideDesk.new(params, patch, property, today)
            bench = desk.bench
            show "decide/index", data: -> { Answers.decide(bench) }, desk:, bench:, patch:
          end
        end
      end
    end
  end
end
