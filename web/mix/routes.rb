# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # How much of what?
      module Routes
        def self.registered(app)
          app.get "/mix" do
            patch = patch_in_query
            desk = Desk.new(params, patch, units, today)
            show "mix/index", data: -> { desk.to_h }, status: desk.errors.any? && @json ? 422 : 200, desk:, patch:
          end
        end
      end
    end
  end
end
