# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      module Routes
        # What years of records say, and what the years ahead may bring.
        module Years
          def self.registered(app)
            app.get "/recheck/learned" do
              board = LearnedBoard.new(properties.map(&:id))
              show("recheck/learned", board:) { Answers.learned(board) }
            end

            app.get "/recheck/quiet" do
              board = QuietBoard.new(params, property, today)
              show("recheck/quiet", board:, form: Forms::Closing.of(property, units, today)) { Answers.quiet(board) }
            end

            app.post "/recheck/closing" do
              form = Forms::Closing.new(params, units:, today:)
              next go_to("/recheck/quiet", "The rule is kept, and quiet patches follow it.") if form.store(property)

              show "recheck/quiet", status: 422, board: QuietBoard.new({}, property, today), form:
            end

            app.get "/recheck/review" do
              board = ReviewBoard.new(params, property, today)
              show("recheck/review", board:) { Answers.review(board) }
            end

            app.get "/recheck/skip" do
              board = SkipBoard.new(property, today)
              show("recheck/skip", board:) { Answers.skip(board) }
            end

            app.get "/recheck/patches/:id/outlook" do
              patch = patch_at(params["id"])
              unless patch.plant
                next go_to("/survey/patches/#{patch.id}", "Identify the plant first. The outlook depends on it.")
              end

              desk = OutlookDesk.new(params, patch, today)
              show("recheck/outlook", patch:, desk:) { Answers.outlook(desk) }
            end

            app.get "/recheck/patches/:id/life" do
              life = LifeLine.new(params, patch_at(params["id"]), today)
              show("recheck/life", patch: life.patch, life:) { Answers.life(life) }
            end

            app.get "/recheck/patches/:id/origin" do
              patch = patch_at(params["id"])
              next go_to("/survey/patches/#{patch.id}", "Name it first: seedlings are of a plant.") unless patch.plant

              desk = OriginDesk.new(params, patch, today)
              bounds = Survey::PatchDesk.new(patch, today).bounds
              show("recheck/origin", patch:, desk:, bounds:) { Answers.origin(desk) }
            end
          end
        end
      end
    end
  end
end
