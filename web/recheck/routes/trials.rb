# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      module Routes
        # Two methods beside each other on one patch.
        module Trials
          def self.registered(app)
            app.get "/recheck/trials" do
              runs = Store::TrialRun.live.where(patch: property.live_patches).reverse(:id).limit(100).all
              boards = runs.map { |run| TrialBoard.new(run) }
              show("recheck/trials", boards:) { runs.map { |run| Answers.trial(run) } }
            end

            app.get "/recheck/trials/new" do
              patch = patch_in_query || halt(404)
              show "recheck/trial_new", patch:, form: Forms::Trial.untouched({ "count" => "20" }, units:, today:)
            end

            app.post "/recheck/trials" do
              patch = patch_at(params["patch"])
              form = Forms::Trial.new(params, units:, today:)
              run = form.store(patch, today)
              next show("recheck/trial_new", status: 422, patch:, form:) unless run

              go_to "/recheck/trials/#{run.id}", "The tags are given out at random. Tie each before you treat."
            end

            app.get "/recheck/trials/:id" do
              form = Forms::Results.untouched({ "counted_on" => today.iso8601 }, units:, today:)
              show("recheck/trial", run: trial_at, board: TrialBoard.new(trial_at), form:) { Answers.trial(trial_at) }
            end

            Trials.counts(app)
            Trials.ends(app)
          end

          # Tags are counted, given out, put right.
          def self.counts(app)
            app.post "/recheck/trials/:id/results" do
              form = Forms::Results.new(params, units:, today:, seen_on: trial_at.begun_on)
              next go_to("/recheck/trials/#{trial_at.id}", "Counted.") if form.store(trial_at)

              show "recheck/trial", status: 422, run: trial_at, board: TrialBoard.new(trial_at), form:
            end

            app.post "/recheck/trials/:id/tags" do
              trial_at.give_out(Whole.read(params["count"]), today)
              go_to "/recheck/trials/#{trial_at.id}", "More tags are given out; the better method gets more of them."
            end

            app.post "/recheck/trials/:id/tags/:number" do
              alive = { "alive" => true, "dead" => false }[params["state"]]
              trial_at.put_right(Whole.read(params["number"]), alive, today) || halt(404)
              go_to "/recheck/trials/#{trial_at.id}", "Tag #{Whole.read(params["number"])} is put right."
            end
          end

          # It is ended, or taken back, which can be undone.
          def self.ends(app)
            app.post "/recheck/trials/:id/end" do
              trial_at.end_on(today)
              go_to "/recheck/trials/#{trial_at.id}", "The trial is ended; its results stay."
            end

            app.post "/recheck/trials/:id/drop" do
              offer_undo "/recheck/trials/#{trial_at.tap(&:take_back).id}/undo"
              go_to "/recheck/trials", "The trial is taken back."
            end

            app.post "/recheck/trials/:id/undo" do
              run = Store::TrialRun[Whole.read(params["id"])] || halt(404)
              go_to "/recheck/trials/#{run.tap(&:bring_back).id}", "The trial is back."
            end
          end
        end
      end
    end
  end
end
