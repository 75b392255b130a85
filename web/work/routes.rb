# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # Who, with what, how long, where does it go?
      module Routes
        def self.registered(app)
          app.register People, Kit, Days, Field
          app.get "/work" do
            patch = patch_in_query
            unless patch
              list = Survey::PatchList.new(property, params, states: Store::Patch::WANTING, named: true)
              next show("work/index", list:) do
                { patches: paged(workable.for_answers) { |one| Survey::Answers.patch(one) } }
              end
            end

            desk = Desk.new(params, patch, units, today)
            show("work/patch", desk:, patch:, form: desk.form) { Answers.brief(desk) }
          end

          app.post "/work/cleanings" do
            cleaned = properties.find { |p| p.id == Whole.read(params["property"]) } || halt(404)
            Store::Cleaning.create(property_id: cleaned.id, done_on: today, people: params["people"].to_s[0, 400])
            go_to "/", "#{cleaned.name}: cleaned today. Asked again in a week, while there is seed."
          end

          app.post "/work/treatments" do
            patch = patch_at(params["patch"])
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
