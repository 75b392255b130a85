# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Routes
        # When a plan goes into the ground, and what becomes of it.
        module Establishment
          def self.registered(app)
            app.get "/replant/plans/:id/when" do
              board = WhenBoard.new(plan_in_path, today)
              show("replant/when", board:) { Answers.when(board) }
            end

            app.get("/replant/plans/:id/take") { establishment_page(plan_in_path) }

            app.post "/replant/plans/:id/planted" do
              plan = plan_in_path
              halt 409 if plan.deleted_at
              on = day_in_query("on")
              wrong = "The day is needed, and not in the future." unless on && on <= today
              next establishment_page(plan, errors: { on: wrong }, status: 422) if wrong

              gone = Forms::Planted.new(params, plan.plantings)
              next establishment_page(plan, errors: gone.errors, status: 422) if gone.errors.any?

              plan.planted(on, keys: Array(params["plants"]), counts: gone.counts)
              go_to "/replant/plans/#{plan.id}/take", "It is on the record of #{plan.patch.code}."
            end
            counted(app)
          end

          # Counts and waterings.
          def self.counted(app)
            app.post "/replant/plans/:id/counts" do
              plan = plan_in_path
              form = Forms::Took.new(params, units:, today:)
              planting = counted_planting(plan, form)
              next establishment_page(plan, form:, status: 422) unless form.ok?

              Store::SurvivorCount.record(planting, **form.columns)
              go_to "/replant/plans/#{plan.id}/take", "The count is kept."
            end

            app.post "/replant/counts/:id/drop" do
              count = Store::SurvivorCount[Whole.read(params["id"])] || halt(404)
              plan_id = count.planting.plan_id || halt(404)
              count.take_back
              offer_undo "/replant/counts/#{count.id}/undo"
              go_to "/replant/plans/#{plan_id}/take", "The count is taken back."
            end

            app.post "/replant/counts/:id/undo" do
              count = Store::SurvivorCount[Whole.read(params["id"])] || halt(404)
              count.bring_back
              go_to "/replant/plans/#{count.planting.plan_id}/take", "The count is kept again."
            end

            app.post "/replant/water" do
              patch = patch_at(params["patch"])
              Store::Watering.done(patch, today)
              offer_undo "/replant/water/#{patch.id}/undo"
              go_to params["back"] == "/" ? "/" : "/survey/patches/#{patch.id}", "Watered: #{patch.code}."
            end

            app.post "/replant/water/:id/undo" do
              patch = patch_at(params["id"])
              Store::Watering.live.where(patch_id: patch.id, watered_on: today).update(deleted_at: Time.now)
              go_to "/survey/patches/#{patch.id}", "Not watered today, then."
            end
          end
          private_class_method :counted
        end
      end
    end
  end
end
