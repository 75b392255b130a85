# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # What to do to this patch: the bench, the methods, and where practitioners differ.
      module Routes
        def self.registered(app)
          app.helpers Helpers
          app.get "/decide" do
            patch = patch_in_query || (params["plant"].to_s.empty? ? workable.unordered.order(:id).first : nil)
            named(patch) if params["plant"].to_s.empty? # else it is asked as if that stood there
            desk = Desk.new(params, patch, property, today, units)
            show("decide/index", desk:, patch:) { Answers.bench(desk) }
          end

          methods(app)
          schools(app)
          app.register Rules, Courses, Priorities
        end

        def self.methods(app)
          app.get "/decide/methods" do
            show("decide/methods") do
              { methods: knowledge.methods_of_removal.values.map { |removal| Answers.removal(removal) } }
            end
          end

          app.get "/decide/methods/:key" do
            removal = knowledge.methods_of_removal[params["key"]] || halt(404)
            show("decide/method", removal:) { Answers.removal(removal) }
          end
        end

        def self.schools(app)
          app.get "/decide/schools" do
            patch = params["patch"].to_s.empty? ? nil : patch_at(params["patch"])
            form = Forms::Schools.of(property, patch, today)
            show("decide/schools", form:, patch:) { Answers.schools(property, patch) }
          end

          app.post "/decide/schools" do
            patch = params["patch"].to_s.empty? ? nil : patch_at(params["patch"])
            form = Forms::Schools.new(params, units:, today:)
            next show("decide/schools", status: 422, form:, patch:) unless form.store(property, patch)

            back = patch ? "/decide?patch=#{patch.id}" : "/decide/schools"
            go_to back, "Kept. The rules follow it from now on."
          end
        end

        # What this room says, for every page.
        module Helpers
          def decide_words = Words.new(property, today)
        end
      end
    end
  end
end
