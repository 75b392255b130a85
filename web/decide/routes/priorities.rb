# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Routes
        # Which patch first, and what a season of crew hours is best spent on.
        module Priorities
          def self.registered(app)
            first(app)
            plan(app)
            wishes(app)
          end

          def self.first(app)
            app.get "/decide/first" do
              desk = RankingDesk.new(params, property, today)
              show("decide/first", desk:) { Answers.ranking(desk) }
            end

            app.post "/decide/first" do
              desk = RankingDesk.new(params, property, today)
              next show("decide/first", status: 422, desk:) if desk.error

              property.update(weights: JSON.generate(desk.weights))
              go_to "/decide/first", "These weights are kept for #{property.name}."
            end
          end

          def self.plan(app)
            app.get "/decide/plan" do
              last = Store::SeasonPlan.live.where(property_id: property.id).reverse(:id).first
              asked = params["hours"]
              form = if last && !asked then Forms::SeasonPlan.of(last, units, today)
                     else Forms::SeasonPlan.fresh(property, units, today, hours: asked)
                     end
              show("decide/plan", plan: last, form:) { Answers.season_plan(last) }
            end

            app.post "/decide/plan" do
              form = Forms::SeasonPlan.new(params, units:, today:)
              asked = form.asked(property)
              next show("decide/plan", status: 422, plan: nil, form:) unless asked

              Planner.ask(property, asked, today)
              go_to "/decide/plan"
            end

            app.get "/decide/plan/:id/progress" do
              plan = of_property(Store::SeasonPlan, params["id"])
              headers "HX-Refresh" => "true" unless plan.solving?
              part "decide/_progress", plan:
            end
          end

          # The same season asked again with a patch held, kept out, or let go.
          def self.wishes(app)
            app.post "/decide/plan/:id/again" do
              plan = of_property(Store::SeasonPlan, params["id"])
              asked = plan.asked_for
              patch = plan.property.live_patches.first(id: Whole.read(params["patch"]))&.id || halt(404)
              %w[pins bans].each { |kind| asked[kind] = asked.fetch(kind, []).reject { |wish| wish["patch"] == patch } }
              asked["pins"] << Priorities.wish(params, patch) if params["wish"] == "pin"
              asked["bans"] << { "patch" => patch } if params["wish"] == "ban"
              Planner.ask(plan.property, asked, today)
              go_to "/decide/plan"
            end
          end

          # What a person wants held: a patch, by a method or in a week where they say so. Raises BadInput when either
          # is none.
          def self.wish(params, patch)
            method, week = params.values_at("method", "week").map { |text| text.to_s.empty? ? nil : text.to_s }
            known = method.nil? || Core::Knowledge.shipped.methods_of_removal.key?(method)
            raise Core::BadInput.new("That is not a method here.", field: :method) unless known

            { "patch" => patch, "method" => method, "week" => week && Date.iso8601(week).iso8601 }.compact
          rescue ArgumentError # a text that is far too long, too
            raise Core::BadInput.new("A week is held by its Monday, such as 2026-07-06.", field: :week)
          end
        end
      end
    end
  end
end
