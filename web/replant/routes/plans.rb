# frozen_string_literal: true

require "csv"

module Thistle
  module Web
    module Replant
      module Routes
        # What goes back as one plan: made of a mix, drawn on the ground, handed out.
        module Plans
          def self.registered(app)
            app.post "/replant/plans" do
              patch = patch_at(params["patch"])
              desk = Desk.new(params, patch, property, today)
              mix = MixDesk.new(params, desk, units, today)
              plan = PlanDesk.new(mix, params["reason"].to_s.strip, today).make
              next show("replant/mix", status: 422, desk:, mix:, patch:) { Answers.mix(mix) } unless plan

              go_to "/replant/plans/#{plan.id}", "The plan is on the record of #{patch.code}."
            end

            app.get("/replant/plans/:id") { planting_plan(plan_in_path) }

            app.post "/replant/plans/:id/lay" do
              plan = plan_in_path
              halt 409 if plan.deleted_at || plan.laid_out.nil?
              layout = Forms::Layout.new(params, units)
              next planting_plan(plan, errors: layout.errors, status: 422) unless layout.ok?

              plan.lay(**layout.how)
              go_to "/replant/plans/#{plan.id}", "Laid out anew."
            rescue Core::BadInput => e
              planting_plan(plan, errors: { e.field => e.message }, status: 422)
            end

            changes(app)
            paper(app)
          end

          # One plant moved, the plan taken back.
          def self.changes(app)
            app.post "/replant/plans/:id/plants/:number" do
              plan = plan_in_path
              x, y = params.values_at("x", "y").map { |text| Float(text.to_s, exception: false) }
              halt 422 unless x&.finite? && y&.finite? && plan.laid_out && plan.deleted_at.nil?
              moved = plan.move(Whole.read(params["number"]), x, y, version: Whole.read(params["version"].to_s))
              status moved ? 204 : 409
            end

            app.post "/replant/plans/:id/take-back" do
              plan = plan_in_path
              plan.take_back unless plan.deleted_at
              go_to "/replant/plans/#{plan.id}", "Taken back, with what was not planted yet."
            end
          end

          # What of a plan is handed out.
          def self.paper(app)
            app.get "/replant/plans/:id/order.csv" do
              board = PlanBoard.new(plan_in_path, units, today)
              content_type "text/csv", charset: "utf-8"
              attachment "order-#{board.patch.code.downcase}.csv"
              Paperwork.csv(board)
            end

            app.get "/replant/plans/:id/plan.svg" do
              board = drawn_board
              content_type "image/svg+xml"
              plot("bed", board:, units:, flat: false)
            end

            app.get "/replant/plans/:id/plan.pdf" do
              board = drawn_board
              content_type "application/pdf"
              attachment "plan-#{board.patch.code.downcase}.pdf", "inline"
              Paperwork.pdf(board, plot("bed", board:, units:, flat: true))
            end

            app.get "/replant/plans/:id/plants.geojson" do
              board = drawn_board
              content_type "application/geo+json"
              attachment "plants-#{board.patch.code.downcase}.geojson"
              Formats::GeoJSON.write(Paperwork.features(board))
            end
          end
          private_class_method :changes, :paper
        end
      end
    end
  end
end
