# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Mix amounts
      module Routes
        def self.registered(app)
          app.get "/mix" do
            patch = patch_in_query
            desk = Desk.new(params, patch, units, property, today)
            show("mix/index", desk:, patch:) { Answers.bench(desk) }
          end
          app.register Shelf
          app.register Measuring
          app.register Records
          app.register Cards
        end
      end
    end
  end
end
