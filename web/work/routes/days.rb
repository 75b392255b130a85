# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Routes
        # Work days: asked for, proposed, held, left out, printed.
        module Days
          def self.registered(app)
            listed(app)
            kept(app)
            wished(app)
          end

          def self.listed(app)
            app.get "/work/days" do
              days = Store::WorkDay.live.where(property_id: property.id).order(:held_on, :id)
              coming = days.where(Sequel[:held_on] >= today).all
              past = days.where(Sequel[:held_on] < today).reverse(:held_on, :id).limit(20).all
              show("work/days", coming:, past:) do
                { coming: coming.map { |day| Answers.work_day(DayBoard.new(day, today)) }, past: past.map(&:id) }
              end
            end

            app.get "/work/days/new" do
              form = Forms::WorkDay.untouched({ "held_on" => (today + 1).iso8601, "starts_at" => "09:00",
                                                "ends_at" => "13:00" }, units:, today:)
              show "work/day_form", work_day: nil, form:
            end

            app.get "/work/days/:id" do
              board = DayBoard.new(work_day_at(params["id"]), today)
              show("work/day", board:) { Answers.work_day(board) }
            end

            app.get "/work/days/:id/edit" do
              day = work_day_at(params["id"])
              show "work/day_form", work_day: day, form: Forms::WorkDay.of(day, units, today).tap { |f| f.errors.clear }
            end

            app.get "/work/days/:id/brief" do
              show "work/day_brief", board: DayBoard.new(work_day_at(params["id"]), today)
            end
          end

          def self.kept(app)
            app.post "/work/days" do
              form = Forms::WorkDay.new(params, units:, today:)
              day = form.store(property, today) or next show("work/day_form", status: 422, work_day: nil, form:)
              Store::Proposal.new(day, today).call
              said = ["The day is proposed.", ("Another is planned here on that date." unless day.same_day.empty?)]
              go_to "/work/days/#{day.id}", said.compact.join(" ")
            end

            app.put "/work/days/:id" do
              day = work_day_at(params["id"])
              form = Forms::WorkDay.new(params, units:, today:)
              if form.store(property, today, day)
                Store::Proposal.new(day, today).call
                next go_to("/work/days/#{day.id}", "Proposed again.")
              end
              show "work/day_form", status: 422, work_day: work_day_at(params["id"]), form:
            end

            app.delete "/work/days/:id" do
              day = work_day_at(params["id"]).tap(&:take_back)
              offer_undo "/work/days/#{day.id}/undo"
              go_to "/work/days", "The day of #{full_day(day.held_on)} was called off."
            end

            app.post "/work/days/:id/undo" do
              day = (Store::WorkDay[Whole.read(params["id"])] || halt(404)).tap(&:bring_back)
              go_to "/work/days/#{day.id}", "The day stands again."
            end
          end

          def self.wished(app)
            app.post "/work/days/:id/propose" do
              day = work_day_at(params["id"])
              Store::Proposal.new(day, today).call
              go_to "/work/days/#{day.id}", "Proposed anew, as things are today."
            end

            app.post "/work/days/:id/minutes" do
              day, patch = work_day_at(params["id"]), patch_at(params["patch"])
              halt 404 unless day.on?(patch)
              typed = Forms::Minutes.new(params, units)
              next go_to("/work/days/#{day.id}", typed.complaint) if typed.complaint

              day.time(patch.id, typed.kept)
              go_to "/work/days/#{day.id}", "#{patch.code}: the crew is parted by your own minutes."
            end

            app.post "/work/days/:id/wishes" do
              day, patch = work_day_at(params["id"]), patch_at(params["patch"])
              halt 404 unless day.on?(patch)
              act = %w[pin ban free].include?(params["wish"]) ? params["wish"] : halt(404)
              block = params["block"].to_s.empty? ? nil : Whole.read(params["block"])
              why = params["why"].to_s.strip[0, 300]
              if params.key?("why") && why.empty?
                next go_to("/work/days/#{day.id}", "Say why #{patch.code} is done at hours that are not fit for it.")
              end

              day.wish(patch.id, act, block:, why: (why unless why.empty?))
              Store::Proposal.new(day, today).call
              said = { "pin" => "held", "ban" => "left out", "free" => "as it comes" }.fetch(act)
              go_to "/work/days/#{day.id}", "#{patch.code} is #{said}; the day is proposed again."
            end
          end
        end
      end
    end
  end
end
