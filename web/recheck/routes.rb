# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # Did it work, when do we come back, when is it over?
      module Routes
        def self.registered(app)
          app.register Trials, Years
          app.get "/recheck" do
            tasks = Store::Task.due(through: VisitStrip.last(today))
            tasks = tasks.where(property_id: params["all"] ? properties.map(&:id) : property.id)
            strip, span = VisitStrip.new(tasks, today), [day_in_query("from"), day_in_query("to")]
            turns = Turns.new(strip.between(*span), params)
            board = VisitsBoard.new(turns, property, today, properties:)
            query = params.slice("all", "from", "to").to_h
            show "recheck/index", board:, turns:, strip:, span:, query: do
              go_on(query.merge("page" => turns.after)) if turns.after
              Answers.tasks(turns)
            end
          end

          app.get "/recheck/patches/:id" do
            patch = patch_at(params["id"])
            show("recheck/patch", patch:, form: Routes.blank(params, units, today, patch)) do
              Survey::Answers.patch(patch)
            end
          end

          app.post "/recheck/tasks" do
            patch = patch_at(params["patch"])
            visit = Forms::Visit.new(params, units:, today:)
            next go_to("/survey/patches/#{patch.id}", "The visit is on the list.") if visit.store(patch, site)

            show_patch(patch, status: 422, visit:)
          end

          Routes.by_word(app, "made", "Done: it is off the list.") do |task, today|
            { done_on: task.done_on ? nil : today, done_by: task.done_on ? nil : "hand" }
          end
          Routes.by_word(app, "drop", "The visit is off the list.") do |task, _|
            { dropped_at: task.dropped_at ? nil : Time.now.utc }
          end

          app.post "/recheck/control" do
            part "recheck/_control", patch: patch_at(params["patch"]),
                                     form: Routes.form(params, units, today, patch_at(params["patch"]))
          end

          app.post "/recheck/checks" do
            patch = patch_at(params["patch"])
            form = Routes.form(params, units, today, patch)
            photo = Routes.photo(params, form) { |files| images(files) }
            before = LookKept.new(patch) # what stood there before this look
            if form.errors.empty? && (check = form.store(patch))
              place = photo && Store::Picture.of_look(check, photo, place: params["place"] == "true", today:)
              next go_to("/survey/patches/#{patch.id}", before.said(check, place))
            end

            show "recheck/patch", status: 422, patch:, form:
          end
        end

        # What the one who asked says of a visit; pressed again, it is asked for again.
        def self.by_word(app, act, words, &word)
          app.post "/recheck/tasks/:id/#{act}" do
            task = Store::Task[Whole.read(params["id"])]
            halt 404 unless task&.by_word?
            patch_at(task.patch_id)
            Store::Wishes.say(task, **word[task, today])
            offer_undo "/recheck/tasks/#{task.id}/#{act}"
            go_to "/survey/patches/#{task.patch_id}", task.refresh.open? ? "It is asked for again." : words
          end
        end

        # The photograph that was sent, as the block reads it; nil for none, or with a complaint for one that is none.
        def self.photo(params, form)
          Upload.read(params["file"])&.then { |file| yield([file]).first }
        rescue Core::BadInput => e
          form.errors[:file] = e.message
          nil
        end

        def self.form(params, units, today, patch)
          last = patch.last_treatment
          sizes = JSON.parse(last&.stems_by_size || "{}")
          Forms::Check.new(params, units:, today:, seen_on: patch.seen_on, treated: last&.stems_done, sizes:)
        end

        # Filled in with what is known: nothing alive, and of seed what the calendar expects.
        def self.blank(params, units, today, patch)
          calendar = patch.plant && patch.property.site(today).calendar(patch.plant)
          counts = { "resprouts" => "0", "missed" => "0", "suckers" => "0", "seedlings" => "0" }
          counts.merge!(params.slice(*counts.keys))
          seed_fall = calendar && Core::Recheck::SeedFall.expected(calendar, today)
          known = { "checked_on" => today.iso8601, **counts, "seed_fall" => seed_fall }.compact
          Forms::Check.new(known, units:, today:)
        end
      end
    end
  end
end
