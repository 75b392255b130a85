# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # Who, with what, how long, where does it go?
      module Routes
        def self.registered(app)
          app.register People, Kit, Days, Field, Benches, Pictures
          app.get "/work" do
            patch = named(patch_in_query)
            unless patch
              list = Survey::PatchList.new(property, params, states: Store::Patch::WANTING)
              next show("work/index", list:, board: Board.new(property, today)) do
                open = property.live_patches.wanting_work
                { patches: paged(open.for_answers) { |one| Survey::Answers.patch(one) } }
              end
            end

            desk = Desk.new(params, patch, units, today)
            show("work/patch", desk:, patch:, form: desk.form) { Answers.brief(desk) }
          end

          app.post "/work/treatments" do
            patch = named(patch_at(params["patch"]))
            form = Forms::Treatment.new(params, units:, today:, seen_on: patch.seen_on)
            if (work = form.store(patch, site))
              said = ["Work recorded. Return visits are set.", *Mix::UsageWords.of(work, units)]
              next go_to("/survey/patches/#{patch.id}", said.join(" "))
            end

            desk = Desk.new(params, patch, units, today)
            show "work/patch", status: 422, desk:, patch:, form:
          end
        end
      end
    end
  end
end
