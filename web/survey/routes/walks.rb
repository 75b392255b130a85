# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Routes
        # Walking: the edge of a patch by position, searched ground, the next scouting walk.
        module Walks
          def self.registered(app)
            app.get "/survey/walk" do
              show "survey/walk", walk: nil, error: nil
            end

            app.post "/survey/walk" do
              walk = WalkDesk.new(params, property, today)
              show("survey/walk", walk:, error: nil) { Answers.walk(walk) }
            rescue Core::BadInput => e
              raise if @json

              show "survey/walk", status: 422, walk: nil, error: e.message
            end

            app.get "/survey/walk/practice.nmea" do
              content_type "text/plain"
              WalkDesk.practice(patch_at(params["patch"]), today)
            end

            app.post "/survey/walk/photos" do
              found = PhotoPoints.new(params["photos"], property, today)
              found.store
              go_to "/survey", found.said
            rescue Core::BadInput => e
              show "survey/walk", status: 422, walk: nil, error: e.message
            end

            app.get "/survey/searches" do
              desk = SearchDesk.new(property, today, metres: params["metres"])
              show("survey/searches", desk:, form: Forms::Search.blank(today).with(drawn_before)) do
                Answers.searches(desk)
              end
            end

            app.post "/survey/searches" do
              form = Forms::Search.new(params, units:, today:)
              search = form.store(property, params["plants"], params["found"])
              desk = SearchDesk.new(property, today)
              next show("survey/searches", status: 422, desk:, form:) unless search

              go_to "/survey/searches", "#{units.area(search.area_m2)} searched; " \
                                        "#{count(search.absences.size, "absence")} on record."
            end

            app.delete "/survey/searches/:id" do
              search = search_at(params["id"])
              search.update(deleted_at: Time.now.utc)
              offer_undo "/survey/searches/#{search.id}/undo"
              go_to "/survey/searches", "The search of #{full_day(search.searched_on)} was taken back."
            end

            app.post "/survey/searches/:id/undo" do
              search_at(params["id"]).update(deleted_at: nil)
              go_to "/survey/searches", "The search is back."
            end
          end
        end
      end
    end
  end
end
