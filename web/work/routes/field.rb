# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Routes
        # A day in the field, tapped with a thumb; and what it becomes afterwards.
        module Field
          FAR_OFF = 15 * 60 # seconds that a phone's clock may be ahead before ours is taken
          DAY = 86_400

          def self.registered(app)
            tapped(app)
            written(app)
          end

          def self.tapped(app)
            app.get "/work/days/:id/field" do
              board = FieldBoard.new(work_day_at(params["id"]), today)
              show("work/field", board:) { Answers.field(board) }
            end

            app.get "/work/days/:id/field/:patch" do
              board = FieldBoard.new(work_day_at(params["id"]), today)
              card = board.card_of(Whole.read(params["patch"])) || halt(404)
              show "work/field_card", board:, card:, recount: RecountDesk.new(params)
            end

            app.post "/work/days/:id/taps" do
              day, patch = work_day_at(params["id"]), patch_at(params["patch"])
              halt refuse(422, "#{patch.code} is not on the property of this day.") unless day.on?(patch)
              tap = Forms::Tap.new(params, units:, today:)
              halt refuse(422, tap.errors.values.first) unless tap.ok?
              halt refuse(409, "Another tap was kept under this key.") unless tap.store(day, patch)
              next json(kept: params["key"]) if @json

              go_to "/work/days/#{day.id}/field/#{patch.id}"
            end

            app.post "/work/days/:id/found" do
              day, like = work_day_at(params["id"]), patch_at(params["patch"])
              form = FoundForm.of(params, like, units, today)
              found = form.add_to(property) or halt refuse(422, form.errors.values.first)
              Store::Tap.keep(day, key: "found-#{found.id}", kind: "found", at: Time.now.utc, patch_id: like.id)
              go_to "/work/days/#{day.id}/field/#{like.id}", "#{found.code} is on the map, to be looked at."
            end

            app.post "/work/days/:id/untap" do
              day, patch = work_day_at(params["id"]), patch_at(params["patch"])
              last = Store::Tap.live.where(work_day_id: day.id, patch_id: patch.id).reverse(:created_at, :id).first
              last&.update(taken_back_at: Time.now.utc)
              said = last ? "The last tap was taken back." : "Nothing to take back."
              go_to "/work/days/#{day.id}/field/#{patch.id}", said
            end
          end

          def self.written(app)
            app.get "/work/days/:id/after" do
              after = AfterDesk.new(work_day_at(params["id"]), today, units)
              show "work/after", after:
            end

            app.post "/work/days/:id/after" do
              after = AfterDesk.new(work_day_at(params["id"]), today, units, params)
              next show("work/after", status: 422, after:) unless after.keep(site)

              id = after.work_day.id
              unless after.work_day.closed?
                next go_to("/work/days/#{id}",
                           "Nothing was written down: the day stays open.")
              end

              go_to "/work/days/#{id}/thanks", "Written down: #{count(after.kept, "record")}. Return visits are set."
            end

            app.get "/work/days/:id/thanks" do
              show "work/thanks", done: DayDone.new(work_day_at(params["id"]), today)
            end
          end
        end
      end
    end
  end
end
